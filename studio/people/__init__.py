"""People who wear garments: bodies of different build, posed by a skeleton. ``studio/ASSETS.md`` says where the bodies come from."""
