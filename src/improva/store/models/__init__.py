"""What is stored as JSON, apart from what the API sends. A key that this version does not know is ignored, so that data and jobs
of other versions can be read.
"""
