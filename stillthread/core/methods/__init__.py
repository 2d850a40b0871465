"""Ways of fishing: counted, hung, dry, over the bed, afloat and by hand."""
