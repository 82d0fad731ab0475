"""The addresses by which other devices of the same house reach this machine."""

import ipaddress

import ifaddr


def is_private(address: str) -> bool:
    """Whether an address is of a house's own network, or of this machine; "all addresses" is none."""
    try:
        ip = ipaddress.ip_address(address.split("%")[0])
    except ValueError:
        return False
    # An IPv4 address in IPv6 clothes is judged as what it is.
    ip = getattr(ip, "ipv4_mapped", None) or ip
    return ip.is_private and not (ip.is_unspecified or ip.is_multicast)


def own_addresses() -> list[str]:
    """This machine's private addresses, IPv4 first; none that only this machine or only one cable knows."""
    found = [ip.ip if isinstance(ip.ip, str) else ip.ip[0] for card in ifaddr.get_adapters() for ip in card.ips]
    kept = [a for a in dict.fromkeys(found) if is_private(a) and not _narrow(a)]
    return sorted(kept, key=lambda a: ":" in a)


def _narrow(address: str) -> bool:
    ip = ipaddress.ip_address(address.split("%")[0])
    return ip.is_loopback or ip.is_link_local or ip.is_unspecified


def in_url(address: str) -> str:
    """An address as it stands in a URL."""
    return f"[{address}]" if ":" in address else address
