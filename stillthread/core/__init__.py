"""Rules and computation: plain functions over frozen values, no Django, no input or output, no clock."""
