"""The web layer: routes parse requests, call the application, and return schemas."""
