"""The rules and computations of the trade, without web, database, clock or file layout."""
