"""The pumps of the works: what each is, its duty and its hours meter."""
