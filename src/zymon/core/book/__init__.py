"""The rules of the Book: how good the dates were, what differed between batches."""
