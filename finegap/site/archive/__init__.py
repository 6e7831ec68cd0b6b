"""The whole works as one archive of open files, and back into an empty folder (``docs/formats/archive.md``)."""
