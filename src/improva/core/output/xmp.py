"""Write what a picture shows into it as XMP (ISO 16684-1), so that the information stays with the file."""

from __future__ import annotations

from collections.abc import Mapping
from xml.sax.saxutils import escape, quoteattr

NAMESPACE = "urn:improva:picture:1"
JPEG_HEAD = b"http://ns.adobe.com/xap/1.0/\0"
"""First bytes of an XMP segment in a JPEG file (ISO 16684-3)."""


def xmp_packet(title: str, says: Mapping[str, str]) -> bytes:
    """Return an XMP packet with a title and plain properties of Improva's namespace."""
    own = "".join(f"\n   <shown:{name}>{escape(value)}</shown:{name}>" for name, value in says.items())
    return (
        '<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>\n'
        '<x:xmpmeta xmlns:x="adobe:ns:meta/">\n <rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">\n'
        '  <rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmp="http://ns.adobe.com/xap/1.0/"\n'
        f"    xmlns:shown={quoteattr(NAMESPACE)}>\n   <xmp:CreatorTool>Improva</xmp:CreatorTool>\n"
        f'   <dc:title><rdf:Alt><rdf:li xml:lang="x-default">{escape(title)}</rdf:li></rdf:Alt></dc:title>{own}\n'
        '  </rdf:Description>\n </rdf:RDF>\n</x:xmpmeta>\n<?xpacket end="w"?>'
    ).encode()


def jpeg_segment(packet: bytes) -> bytes:
    """Return the APP1 segment that carries a packet in a JPEG file."""
    body = JPEG_HEAD + packet
    return b"\xff\xe1" + (len(body) + 2).to_bytes(2, "big") + body
