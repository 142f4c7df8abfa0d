"""What is answered without a route's help: to whom may not ask, to what is too large, and when the program fails."""

Refusal = tuple[int, str, str]
"""Status, code and sentence."""
AGAIN_S = 1
"""After so many seconds whoever was told 503 may ask again; nothing was changed by what was refused so."""
FROM_ELSEWHERE: Refusal = (403, "from_elsewhere", "Loquen answers its own pages on this machine only.")
TOO_LARGE: Refusal = (413, "too_large", "That is too large, or of unknown size.")
STOPPING: Refusal = (503, "stopping", "Loquen is being stopped. Nothing was changed by this.")
FAILED: Refusal = (
    500,
    "server_fault",
    "Loquen failed at this, and has noted it in its log. Nothing was changed; what you typed stays in the page.",
)
