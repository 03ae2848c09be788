"""The engine: everything that is worked out of one store, step by step, and kept until it is no longer needed."""
