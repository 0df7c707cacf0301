"""An entry: taken or refused by the same rules, wherever the job is kept."""
