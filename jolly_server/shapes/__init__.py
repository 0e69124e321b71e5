"""How things look on their way: columns that hold JSON, and shapes of answers that several apps share."""
