"""What happens in water, a file a phenomenon: each adds what it does to the rates of an instant."""
