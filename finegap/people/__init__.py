"""Who somebody is, said again where it counts: a PIN at the signature, an amendment, a lead's override."""
