from twincore.profile import FunctionDef


def function(kind: str, unit: str = "", choices: tuple[str, ...] = ()) -> FunctionDef:
    return FunctionDef("f", "F", kind, unit, choices, "behaviour", 0, 0, None)
