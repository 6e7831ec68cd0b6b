"""A certificate authority of the works' own, and a certificate of it for the server: tablets trust the first once.

The authority can vouch for addresses of private networks, for this machine, for names that end in .local, .internal or .home.arpa
(RFC 1918, RFC 4193, RFC 6762, RFC 8375), and for those it was made with: nothing else, whoever gets hold of its key (RFC 5280,
4.2.1.10).
"""

from __future__ import annotations

import datetime as dt
import ipaddress
import re
from dataclasses import dataclass
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

from finegap.site.folder import write_whole

AUTHORITY, AUTHORITY_KEY, SERVER, SERVER_KEY = "authority.crt", "authority.key", "server.crt", "server.key"
HERE = ("localhost", "127.0.0.1", "::1")
"""This machine's own names, in every certificate."""

AUTHORITY_DAYS, SERVER_DAYS = 3650, 397
"""Browsers take no server certificate for longer than 398 days (CA/Browser Forum, baseline requirements 6.3.2)."""

LATE_DAYS = 30
_EARLIER = dt.timedelta(hours=1)
"""Clocks of tablets are a little behind."""

_PRIVATE_NAMES = ("localhost", "local", "internal", "home.arpa")
_PRIVATE_NETWORKS = (
    "10.0.0.0/8",
    "172.16.0.0/12",
    "192.168.0.0/16",
    "169.254.0.0/16",
    "127.0.0.0/8",
    "fc00::/7",
    "fe80::/10",
    "::1/128",
)
_NAME = re.compile(r"(?=.{1,253}$)[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?(\.[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)*")


class TlsFault(Exception):
    """A certificate cannot be made; the message is a sentence."""


@dataclass(frozen=True)
class Certificate:
    """What a server certificate says: the hosts it is for, when it ends, and the fingerprint of its authority (SHA-256)."""

    hosts: tuple[str, ...]
    ends: dt.datetime
    authority: str

    @property
    def days_left(self) -> int:
        """Below zero when it has ended."""
        return (self.ends - dt.datetime.now(dt.UTC)).days


def make(folder: Path, hosts: list[str]) -> Certificate:
    """Make a certificate for hosts, and the authority where there is none yet. Made again it is renewed.

    Parameters
    ----------
    folder : Path
        Where both are kept, with their keys, readable by their owner alone.
    hosts : list of str
        Names and addresses by which tablets reach the server; this machine's own are added. None: those of the certificate there.

    Raises
    ------
    TlsFault
        A host that cannot be, none at all, or one the authority cannot vouch for.
    """
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    there = read(folder)
    wanted = hosts or [host for host in (there.hosts if there else ()) if host not in HERE]
    names = list(dict.fromkeys([*(_checked(host) for host in wanted), *HERE]))
    if not (folder / AUTHORITY).exists():
        _make_authority(folder, names)
    authority = _certificate(folder / AUTHORITY)
    for name in names:
        if not _may_vouch(authority, name):
            problem = f"The authority of this works cannot vouch for {name}: it was made without it."
            raise TlsFault(
                f"{problem} Delete {folder / AUTHORITY}, make it again with {name}, and have the tablets trust the new one."
            )
    _make_server(folder, authority, names)
    made = read(folder)
    assert made is not None
    return made


def read(folder: Path) -> Certificate | None:
    """The certificate that is there, if one is.

    Raises
    ------
    TlsFault
        The file is there and holds none.
    """
    if not (folder / SERVER).exists():
        return None
    try:
        server = _certificate(folder / SERVER)
    except ValueError:
        raise TlsFault(f"{folder / SERVER} is no certificate. Delete it, and make it again: fine-gap certificate HOST.") from None
    names = server.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    hosts = (*names.get_values_for_type(x509.DNSName), *map(str, names.get_values_for_type(x509.IPAddress)))
    print_ = _certificate(folder / AUTHORITY).fingerprint(hashes.SHA256()).hex(":").upper()
    return Certificate(hosts, server.not_valid_after_utc, print_)


def _checked(host: str) -> str:
    name = host.strip().lower().strip("[]")
    try:
        return str(ipaddress.ip_address(name))
    except ValueError:
        pass
    if not _NAME.fullmatch(name) or name.replace(".", "").isdigit():
        raise TlsFault(f"“{host[:60]}” is neither a name nor an address of a machine: such as pumps.local or 192.168.1.20.")
    return name


def _general(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ipaddress.ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def _make_authority(folder: Path, names: list[str]) -> None:
    key = ec.generate_private_key(ec.SECP256R1())
    subject = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Fine Gap, this works")])
    own = [name for name in names if not _is_private(name)]
    networks = [*map(ipaddress.ip_network, _PRIVATE_NETWORKS), *(ipaddress.ip_network(n) for n in own if _is_address(n))]
    domains = [*_PRIVATE_NAMES, *(n for n in own if not _is_address(n))]
    permitted = [*(x509.DNSName(one) for one in domains), *(x509.IPAddress(one) for one in networks)]
    usage = x509.KeyUsage(
        digital_signature=False, content_commitment=False, key_encipherment=False, data_encipherment=False, key_agreement=False,
        key_cert_sign=True, crl_sign=True, encipher_only=False, decipher_only=False,
    )  # fmt: skip
    built = _builder(subject, subject, key, AUTHORITY_DAYS)
    built = built.add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True).add_extension(usage, critical=True)
    built = built.add_extension(x509.NameConstraints(permitted, None), critical=True)
    built = built.add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
    _write_key(folder / AUTHORITY_KEY, key)
    (folder / AUTHORITY).write_bytes(built.sign(key, hashes.SHA256()).public_bytes(serialization.Encoding.PEM))


def _make_server(folder: Path, authority: x509.Certificate, names: list[str]) -> None:
    signing = serialization.load_pem_private_key((folder / AUTHORITY_KEY).read_bytes(), None)
    assert isinstance(signing, ec.EllipticCurvePrivateKey)
    key = ec.generate_private_key(ec.SECP256R1())
    subject = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, names[0])])
    built = _builder(subject, authority.subject, key, SERVER_DAYS)
    built = built.add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
    built = built.add_extension(x509.SubjectAlternativeName([_general(name) for name in names]), critical=False)
    built = built.add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
    issuer = authority.extensions.get_extension_for_class(x509.SubjectKeyIdentifier).value
    built = built.add_extension(x509.AuthorityKeyIdentifier.from_issuer_subject_key_identifier(issuer), critical=False)
    _write_key(folder / SERVER_KEY, key)
    write_whole(folder / SERVER, built.sign(signing, hashes.SHA256()).public_bytes(serialization.Encoding.PEM))


def _builder(subject: x509.Name, issuer: x509.Name, key: ec.EllipticCurvePrivateKey, days: int) -> x509.CertificateBuilder:
    begins = dt.datetime.now(dt.UTC) - _EARLIER
    named = x509.CertificateBuilder().subject_name(subject).issuer_name(issuer).public_key(key.public_key())
    return (
        named.serial_number(x509.random_serial_number()).not_valid_before(begins).not_valid_after(begins + dt.timedelta(days=days))
    )


def _may_vouch(authority: x509.Certificate, name: str) -> bool:
    permitted = authority.extensions.get_extension_for_class(x509.NameConstraints).value.permitted_subtrees or []
    if _is_address(name):
        address = ipaddress.ip_address(name)
        networks = (ipaddress.ip_network(str(one.value)) for one in permitted if isinstance(one, x509.IPAddress))
        return any(address in network for network in networks)
    names = [one.value for one in permitted if isinstance(one, x509.DNSName)]
    return any(name == one or name.endswith(f".{one}") for one in names)


def _is_address(name: str) -> bool:
    try:
        ipaddress.ip_address(name)
    except ValueError:
        return False
    return True


def _is_private(name: str) -> bool:
    if _is_address(name):
        return any(ipaddress.ip_address(name) in ipaddress.ip_network(one) for one in _PRIVATE_NETWORKS)
    return any(name == one or name.endswith(f".{one}") for one in _PRIVATE_NAMES)


def _certificate(path: Path) -> x509.Certificate:
    return x509.load_pem_x509_certificate(path.read_bytes())


def _write_key(path: Path, key: ec.EllipticCurvePrivateKey) -> None:
    written = key.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )  # fmt: skip
    write_whole(path, written)
