"""The server as a process: slow senders, proxies, whose database it is, and what a kill leaves behind."""
