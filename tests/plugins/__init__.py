"""A made-up family and a made-up means, which a test puts into a copy of the project: nothing else of it is changed."""
