"""What a call refuses."""


class InputError(Exception):
    """An input is wrong: the file and what is the matter with it."""
