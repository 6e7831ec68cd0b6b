"""What every app's API stands on: requests, answers, errors, roles."""
