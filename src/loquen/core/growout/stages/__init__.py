"""What a venture's book reckons, in the order of the job: colony, broods, sale, worth."""
