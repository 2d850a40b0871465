"""Set-ups: what to tie on and how to fish it, with reasons, cautions and what was ruled out."""
