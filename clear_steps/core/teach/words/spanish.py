"""How it is said in Spanish."""

from collections.abc import Sequence
from fractions import Fraction

from clear_steps.core.figures import As
from clear_steps.core.score import Metre, Part, PickingFinger, Stroke, Technique
from clear_steps.core.score.words import count_sign
from clear_steps.core.teach.chunks.chunk import Chunk, Like
from clear_steps.core.teach.setting_up import Compare, Turn
from clear_steps.core.teach.words.facts import NoteFact

_T = Technique
_FINGERS = {"1": "dedo 1", "2": "dedo 2", "3": "dedo 3", "4": "meñique", "T": "pulgar"}
_STROKES = {Stroke.DOWN: "abajo", Stroke.UP: "arriba"}
_PICKING = {
    PickingFinger.THUMB: "pulgar",
    PickingFinger.INDEX: "índice",
    PickingFinger.MIDDLE: "medio",
    PickingFinger.RING: "anular",
    PickingFinger.LITTLE: "meñique",
}
_NUMBERS = (
    *("cero", "un", "dos", "tres", "cuatro", "cinco", "seis", "siete", "ocho", "nueve", "diez", "once"),
    "doce",
)
_PLACES = {"e": "la «e»", "&": "la «y»", "a": "la «a»", "t": "el segundo tercio", "l": "el último tercio"}

_TECHNIQUES = {
    _T.HAMMER_ON: "ligado ascendente",
    _T.PULL_OFF: "ligado descendente",
    _T.SLIDE: "deslizando hasta ahí",
    _T.SHIFT_SLIDE: "deslizando hasta ahí y pulsando",
    _T.SLIDE_IN_BELOW: "entrando desde abajo",
    _T.SLIDE_IN_ABOVE: "entrando desde arriba",
    _T.SLIDE_OUT_UP: "saliendo hacia arriba",
    _T.SLIDE_OUT_DOWN: "saliendo hacia abajo",
    _T.PRE_BEND: "estirando antes de que suene",
    _T.UNISON_BEND: "estirando al unísono",
    _T.VIBRATO: "con vibrato",
    _T.TRILL: "con trino",
    _T.GRACE: "como nota de adorno",
    _T.PALM_MUTE: "apagando con la palma",
    _T.LET_RING: "dejando sonar",
    _T.STACCATO: "cortando la nota",
    _T.ACCENT: "con acento",
    _T.TREMOLO: "en trémolo",
    _T.FREE_TREMOLO: "en trémolo lo más rápido posible",
    _T.NATURAL_HARMONIC: "como armónico",
    _T.TOUCHED_HARMONIC: "como armónico tocado",
    _T.ARTIFICIAL_HARMONIC: "como armónico artificial",
    _T.PINCH_HARMONIC: "como armónico de púa",
    _T.TAP: "golpeando con la mano derecha",
    _T.SLAP: "con golpe del pulgar",
    _T.RAKE: "arrastrando la púa",
    _T.WHAMMY_DIP: "hundiendo la palanca",
    _T.PICK_AND_FINGERS: "con púa y dedos",
}
_EVERY = {1: "esa", 2: "las dos"}


def like_words(_part: Part, _chunk: Chunk, like: Like) -> str:
    """What stands behind the name of a chunk that is like another."""
    words = {
        As.EQUAL: " otra vez",
        As.MOVED: f", {_frets(like.by)}",
        As.STRINGS: ", en otras cuerdas",
        As.OCTAVE: ", a la octava",
        As.PLACE: ", en otro lugar del mástil",
    }[like.how]
    return f"{words}, con cambios" if like.but else words


class Spanish:
    """The phrases."""

    def technique(self, technique: Technique) -> str:
        """What is done to a note."""
        return _TECHNIQUES[technique]

    def begins(self, beat: str, bar: int) -> str:
        """Where a chunk begins."""
        return f"empieza en {beat} del compás {bar}"

    def beat(self, onset: Fraction, metre: Metre) -> str:
        """A place in a bar."""
        beat, part = divmod(onset / metre.beat_quarters, 1)
        sign = _PLACES.get(count_sign(onset, metre), "") if part else ""
        if part and not sign:
            sign = f"el punto {part.numerator}/{part.denominator}"
        return f"{sign} del tiempo {int(beat) + 1}" if sign else f"el tiempo {int(beat) + 1}"

    def in_bar(self, beat: str, bar: int) -> str:
        """A place in one of several bars."""
        return f"{beat} del compás {bar}"

    def all_of_it(self, techniques: Sequence[str]) -> str:
        """What holds for every note."""
        return f"todo {_listed(techniques)}"

    def strings(self, strings: Sequence[int]) -> str:
        """The strings of a note or of several alike."""
        return f"{_listed([f'{each}.ª' for each in strings])} cuerda{'s' if len(strings) > 1 else ''}"

    def place(self, strings: Sequence[int], note: NoteFact) -> str:
        """String, fret and finger, each named."""
        string = self.strings(strings)
        if note.dead or not note.fret:
            state = "al aire" if not note.dead else "apagadas" if len(strings) > 1 else "apagada"
            return f"{string} {state}"
        return ", ".join(filter(None, (string, f"traste {note.fret}", _FINGERS.get(note.finger))))

    def every_one(self, count: int, techniques: Sequence[str]) -> str:
        """What is done to all notes of a moment."""
        return f"{_EVERY.get(count, 'todas')} {_listed(techniques)}"

    def manner(self, note: NoteFact) -> list[str]:
        """What is done to it."""
        found = [_TECHNIQUES[each] for each in sorted(note.techniques)]
        if note.half_tones:
            found.append(_bent(note.fret, note.half_tones))
        if note.released:
            found.append("y soltando" if note.half_tones else "soltando lo estirado")
        return found + [f"«{name}»" for name in sorted(note.own)]

    def with_(self, notes: Sequence[str]) -> str:
        """Notes struck at once."""
        return " con ".join(notes)

    def on_top(self, notes: str) -> str:
        """The rest of a chord that takes two sentences."""
        return f"a la vez {notes}"

    def also(self, strings: Sequence[int], manner: Sequence[str]) -> str:
        """What did not fit where a note was told."""
        return f"en la {self.strings(strings)} además, {', '.join(manner)}"

    def all_of_that(self) -> str:
        """A chord that took several sentences."""
        return "todo eso"

    def times(self, phrase: str, count: int) -> str:
        """The same several times."""
        return f"{phrase}, {_number(count)} veces"

    def again(self, chord: str) -> str:
        """A chord that was told before."""
        return f"{chord} otra vez"

    def moved_shape(self, by: int) -> str:
        """The shape before, moved along the neck."""
        return f"la misma forma {_frets(by)}"

    def stays(self, fingers: Sequence[str]) -> str:
        """Fingers that hold on."""
        return f"sin levantar {_listed([_FINGERS[finger] for finger in fingers])}"

    def stopped(self, strings: Sequence[int]) -> str:
        """Strings that must not ring on."""
        return f"callando la {self.strings(strings)}"

    def like(self, name: str, how: As, by: int) -> str:
        """A chunk that is an earlier one."""
        if how is As.EQUAL:
            return f"igual que {name}"
        if how is As.MOVED:
            return f"igual que {name}, {_frets(by)}"
        number = "una" if abs(by) == 1 else _number(abs(by))
        strings = f"{number} cuerda{'s' if abs(by) > 1 else ''}"
        return f"igual que {name}, {strings} más {'grave' if by > 0 else 'aguda'}{'s' if abs(by) > 1 else ''}"

    def but(self, where: str, what: str) -> str:
        """A moment of it that is other."""
        return f"pero en {where}: {what}"

    def count(self, counts: str, first: bool) -> str:
        """What is counted aloud in a bar."""
        return f"cuenta {counts}" if first else f"en el compás siguiente cuenta {counts}"

    def sign(self, sign: str) -> str:
        """A count as it is spoken."""
        return "y" if sign == "&" else sign

    def strokes(self, strokes: Sequence[Sequence[Stroke]]) -> str:
        """Strokes, those of one beat together."""
        return f"rasguea {', '.join('-'.join(_STROKES[each] for each in beat) for beat in strokes)}"

    def turn(self, turn: Turn, name: str) -> str:
        """A string tuned to another note."""
        tones = f"{_number(abs(turn.by))} semitono{'s' if abs(turn.by) > 1 else ''}"
        other = self.strings([turn.other])
        how = {
            Compare.UNISON: f"hasta que suene como la {other} al aire",
            Compare.OCTAVE_BELOW: f"hasta que su armónico del traste 12 suene como la {other} al aire",
            Compare.OCTAVE_ABOVE: f"hasta que quede una octava por encima de la {other} al aire",
            Compare.PRESSED: f"hasta que suene como la {other} en el traste {turn.fret}",
            Compare.PRESSES: f"hasta que su traste {turn.fret} suene como la {other} al aire",
            Compare.TONE: "con un tono de referencia",
        }[turn.compare]
        slowly = ", despacio: puede romperse" if turn.tight else ""
        way = "sube" if turn.by > 0 else "baja"
        return f"{self.strings([turn.string])}: {way} {tones} a {name}, {how}{slowly}"

    def capo(self, fret: int) -> str:
        """Where the capo sits; 0: nowhere."""
        return f"cejilla en el traste {fret}: los trastes se cuentan desde ella" if fret else "sin cejilla"

    def sounds(self, by: int) -> str:
        """How far the song sounds from the guitar as it is tuned."""
        if by == 0:
            return "suena a la altura de tu guitarra tal como está"
        tones = f"{_number(abs(by))} semitono{'s' if abs(by) > 1 else ''}"
        return f"suena {tones} más {'agudo' if by > 0 else 'grave'} que tu guitarra tal como está"

    def off_pitch(self, cents: int) -> str:
        """That a recording is between two half tones."""
        way = "alta" if cents > 0 else "baja"
        return f"la grabación está {abs(cents)} cents más {way}: afina cada cuerda con los tonos"

    def picking(self, fingers: Sequence[Sequence[PickingFinger]]) -> str:
        """Fingers of the picking hand."""
        return f"pulsa {', '.join(' y '.join(_PICKING[each] for each in row) for row in fingers)}"


def _number(count: int) -> str:
    return _NUMBERS[count] if count < len(_NUMBERS) else str(count)


def _listed(words: Sequence[str]) -> str:
    return f"{', '.join(words[:-1])} y {words[-1]}" if len(words) > 1 else "".join(words)


def _bent(fret: int, half_tones: Fraction) -> str:
    if half_tones.denominator == 1:
        return f"estirando hasta el sonido del traste {fret + int(half_tones)}"
    quarters = half_tones * 2
    return "estirando un cuarto de tono" if quarters == 1 else f"estirando {quarters} cuartos de tono"


def _frets(by: int) -> str:
    frets = f"{_number(abs(by))} traste{'s' if abs(by) > 1 else ''}"
    return f"{frets} hacia {'el puente' if by > 0 else 'la cejuela'}"
