"""Simulated stand-ins for devices and services outside: each says that it is one, wherever it is shown."""
