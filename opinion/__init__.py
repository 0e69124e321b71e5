"""A second opinion on the lists: worked out from the project file alone, as a text book would, slowly and plainly.

Nothing here imports anything of the project. What it reads is the file that people keep (`docs/formats/`) and the data
of the symbols, so that a rule that is wrong in the one is not wrong in the other for the same reason. What differs is
said by `tests` here over generated projects, and by `scripts/second-opinion` for as long as one likes.
"""
