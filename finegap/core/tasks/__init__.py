"""What steps are done with. Each module here is one kind of task, and holds it as ``TASK``; nothing lists them."""
