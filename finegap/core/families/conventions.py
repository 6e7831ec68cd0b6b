"""What practitioners differ on in more than one family. Common practice, no source; sheet or works choose."""

from __future__ import annotations

from finegap.core.families.builds import Option, When, convention


def seal_faces(when: When) -> Option:
    """Lapped faces go in dry, or with a film."""
    return convention(
        "faces",
        "Seal faces",
        {"dry": "fitted dry", "film": "fitted with a film"},
        {"dry": "Faces wiped clean and fitted dry.", "film": "A film of a lubricant that suits on the faces."},
        "Faces clean; dry or with a film, as the seal maker says.",
        when,
    )
