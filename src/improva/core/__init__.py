"""What the job knows: pure computation, with no web, no database, no clock and no file layout."""
