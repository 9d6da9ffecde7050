"""Stored JSON values, separate from the API's schemas. Unknown keys are ignored, so that data and jobs of other versions can
be read."""
