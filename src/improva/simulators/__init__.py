"""Simulated stand-ins for outside devices and services. Each says so wherever it is shown."""
