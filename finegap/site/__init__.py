"""The Django project: settings, addresses, sign-in, and the demo."""
