"""Numbers of things in words."""


def counted(number: int, thing: str) -> str:
    """Return how many there are of a thing whose plural ends in s.

    Example:
        >>> counted(1, "device"), counted(3, "device")
        ('1 device', '3 devices')
    """
    return f"{number} {thing}" if number == 1 else f"{number} {thing}s"
