"""What only a machine shows that has nothing of this project: run by ./test fresh."""
