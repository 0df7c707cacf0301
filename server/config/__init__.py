"""How the server is put together: settings, addresses, errors, paging."""
