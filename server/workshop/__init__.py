"""The workshop: boards and kinds of machine made by people, from what is seen and what leaflets say."""
