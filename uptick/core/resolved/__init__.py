"""What holds where: documents by context and class, and what differs between two drafts."""
