"""From a file's bytes to a safe XML tree: entities off, compressed files unpacked within limits."""

import io
import struct
import zipfile
import zlib
from xml.etree.ElementTree import Element, ParseError

from defusedxml.common import DefusedXmlException
from defusedxml.ElementTree import fromstring

from clear_steps.core.errors import Problem, ReadError

MAX_XML_BYTES = 12 * 1024 * 1024
_MAX_ENTRIES = 64
_CONTAINER = "META-INF/container.xml"
_MAX_CONTAINER_BYTES = 64 * 1024
_PIECE_BYTES = 64 * 1024
_METHODS = (zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED)

# What the standard library's unpacking and parsing raise on spoilt files.
_BROKEN = (
    zipfile.BadZipFile,
    zlib.error,
    struct.error,
    ParseError,
    DefusedXmlException,
    KeyError,
    ValueError,
    IndexError,
    EOFError,
    RuntimeError,
    OSError,
)


def xml_of(content: bytes) -> Element:
    """The root element of a plain or compressed MusicXML file; raises ReadError."""
    xml = _unpacked(content) if content[:2] == b"PK" else content
    if len(xml) > MAX_XML_BYTES:
        raise _wrong(f"the XML has {len(xml):,} bytes; expected at most {MAX_XML_BYTES:,}")
    try:
        root: Element = fromstring(xml, forbid_dtd=False, forbid_entities=True, forbid_external=True)
    except ParseError as cause:
        line, column = cause.position
        raise ReadError(
            (
                Problem(
                    line, column + 1, f"this is no well-formed XML ({str(cause)[:200]}); expected MusicXML"
                ),
            )
        ) from cause
    except DefusedXmlException as cause:
        raise _wrong(
            "the XML defines entities, which are not read; expected MusicXML without them"
        ) from cause
    except (ValueError, LookupError) as cause:
        raise _wrong(
            f"the XML cannot be decoded ({str(cause)[:200]}); expected UTF-8 or the encoding it declares"
        ) from cause
    return root


def _unpacked(content: bytes) -> bytes:
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            entries = archive.infolist()
            if any(entry.compress_type not in _METHODS for entry in entries):
                raise _wrong("the compressed file is packed in a way that is not read; expected plain zip")
            if len(entries) > _MAX_ENTRIES or sum(entry.file_size for entry in entries) > 2 * MAX_XML_BYTES:
                raise _wrong(
                    f"the compressed file unpacks to more than {2 * MAX_XML_BYTES:,} bytes or {_MAX_ENTRIES}"
                    " entries"
                )
            return _read(archive, _main_entry(archive), MAX_XML_BYTES)
    except _BROKEN as cause:
        raise _wrong(
            f"the compressed file cannot be unpacked ({str(cause)[:200]}); expected compressed MusicXML"
        ) from cause


def _read(archive: zipfile.ZipFile, name: str, most_bytes: int) -> bytes:
    """An entry's content, piece by piece: what the archive says of its size need not be so."""
    content = bytearray()
    with archive.open(name) as entry:
        while piece := entry.read(_PIECE_BYTES):
            content += piece
            if len(content) > most_bytes:
                raise _wrong(f"{name[:200]} unpacks to more than {most_bytes:,} bytes")
    return bytes(content)


def _main_entry(archive: zipfile.ZipFile) -> str:
    names = archive.namelist()
    if _CONTAINER in names:
        container = fromstring(_read(archive, _CONTAINER, _MAX_CONTAINER_BYTES), forbid_dtd=True)
        for element in container.iter():
            if element.tag.rpartition("}")[2] == "rootfile" and element.get("full-path") in names:
                return str(element.get("full-path"))
    scores = [
        name
        for name in names
        if name.lower().endswith((".xml", ".musicxml")) and not name.startswith("META-INF")
    ]
    if not scores:
        raise _wrong("the compressed file holds no score; expected a .xml or .musicxml entry")
    return scores[0]


def _wrong(message: str) -> ReadError:
    return ReadError((Problem(1, 1, message),))
