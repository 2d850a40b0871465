"""What is tied together: lines, leaders, flies, and how much of it an angler can land."""
