"""What a designer decides: settings, what each exception reaches, and their history."""
