"""Convert application values to response models, one module per resource."""
