"""A draft's sheet: what is asked, what is answered, what is drawn, and the working of a figure."""
