"""What goes out to somebody without an account: a job's report by a link that ends, and what falls due as a calendar's feed."""
