"""Request models (In) and response models (Out), one module per resource."""
