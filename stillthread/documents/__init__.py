"""Our own documents, as contracts and as the core's values: plan, read, simulate, thread, flies, water."""
