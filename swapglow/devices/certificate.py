"""The bench's own certificate. It is made on this machine for this machine's addresses, and signs itself."""

import ipaddress
import os
import socket
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

# What phones take at most of one that they are told to trust.
LASTS = timedelta(days=397)
# One that ends sooner is made anew.
SPARE = timedelta(days=30)


@dataclass(frozen=True)
class Certificate:
    """A certificate with its key, as files.

    Attributes:
        chain: the certificate's file, PEM.
        key: the key's file, PEM, for its owner only.
        fingerprint: SHA-256 of the certificate, in pairs, as browsers show it.
    """

    chain: Path
    key: Path
    fingerprint: str


def certificate(folder: Path, addresses: list[str]) -> Certificate:
    """The bench's certificate for its addresses; made where there is none, or it names other addresses or ends soon.

    Args:
        folder: where it is kept.
        addresses: the IP addresses that it is for.

    Returns:
        The certificate.
    """
    chain, key = folder / "bench.crt", folder / "bench.key"
    kept = _kept(chain) if key.exists() else None
    if kept is None or not _fits(kept, addresses):
        kept = _make(chain, key, addresses)
    pairs = kept.fingerprint(hashes.SHA256()).hex(":").upper()
    return Certificate(chain, key, pairs)


def _kept(chain: Path) -> x509.Certificate | None:
    try:
        return x509.load_pem_x509_certificate(chain.read_bytes())
    except (OSError, ValueError):
        return None


def _fits(kept: x509.Certificate, addresses: list[str]) -> bool:
    named = kept.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    known = {str(ip) for ip in named.get_values_for_type(x509.IPAddress)}
    return set(addresses) <= known and kept.not_valid_after_utc - datetime.now(UTC) > SPARE


def _make(chain: Path, key: Path, addresses: list[str]) -> x509.Certificate:
    secret = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Swap Glow bench")])
    names: list[x509.GeneralName] = [x509.IPAddress(ipaddress.ip_address(a)) for a in addresses]
    host = socket.gethostname()
    if host.isascii() and host.replace("-", "").replace(".", "").isalnum():
        names.append(x509.DNSName(host))
    began = datetime.now(UTC) - timedelta(hours=1)
    made = (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(name)
        .public_key(secret.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(began)
        .not_valid_after(began + LASTS)
        .add_extension(x509.SubjectAlternativeName(names), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .sign(secret, hashes.SHA256())
    )
    _write(
        key,
        secret.private_bytes(
            serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
        ),
    )
    _write(chain, made.public_bytes(serialization.Encoding.PEM))
    return made


def _write(path: Path, content: bytes) -> None:
    """For its owner only, from its first byte on."""
    path.unlink(missing_ok=True)
    with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as file:
        file.write(content)
