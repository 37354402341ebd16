"""A bag in pieces: panels, edges, joins and folds by their keys, and the steps of work on them."""
