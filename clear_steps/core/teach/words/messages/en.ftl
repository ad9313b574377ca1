# What is said in English. A language that lacks a message is given this one.
# WORD($n): three; ORDINAL($n): 3rd.

list = { $first } and { $last }

# Fingers
finger-1 = index
finger-2 = middle
finger-3 = ring
finger-4 = little
finger-T = thumb
the-finger = the { $finger }
with-finger = with the { $finger } finger
picking-p = thumb
picking-i = index
picking-m = middle
picking-a = ring
picking-c = little

# Time
beat = beat { $beat }
part-e = the e of { $beat }
part-and = the & of { $beat }
part-a = the a of { $beat }
part-t = the second third of { $beat }
part-l = the last third of { $beat }
part-of-beat = part { WORD($share) } of { WORD($of) } of beat { $beat }
sign-e = e
sign-and = &
sign-a = a
sign-t = trip
sign-l = let
sign-part = { $share }/{ $of }
count = count { $counts }
count-each = count { $counts }, each bar
count-next = in the next bar count { $counts }
at-place = { $what } on { $place }
after-rest = rest, then { $what } on { $place }
lasting = { $what }, { $beats ->
    [one] a beat
   *[other] { WORD($beats) } beats
  }
triplets = three to the beat, 1 trip-let
to-the-beat = { WORD($count) } to the beat
times = { $count ->
    [2] twice
   *[other] { WORD($count) } times
  }
bars = { $bars ->
    [one] a bar
   *[other] { WORD($bars) } bars
  }
beats = { $beats ->
    [one] a beat
   *[other] { WORD($beats) } beats
  }

# Notes
open = open
dead = dead
wait = wait
harmonics-at = harmonics at { $frets }
run = the run: { $what }
position = { ORDINAL($fret) } position
on-string = { ORDINAL($string) } string { $what }
short-string = { ORDINAL($string) } { $what }
the-string = the { ORDINAL($string) } string
strings = strings { $strings }
on-strings = strings { $strings }: { $what }
together = { $notes } together
note-times = { $what } { $times ->
    [2] twice
   *[other] { WORD($times) } times
  }
cell-again = { $cell }, { $times ->
    [2] again
   *[other] { WORD($times) } times
  }
bent-to = { $what }, bend to the sound of the { ORDINAL($fret) }
bent-again = { $what }, bend to { $fret }
prebent-to = { $what }, bent to the sound of the { ORDINAL($fret) } before it sounds
prebent-quarter = { $what }, bent a quarter tone before it sounds
prebent-quarters = { $what }, bent { $quarters } quarter tones before it sounds
bent-quarter = { $what }, bend a quarter tone
bent-quarters = { $what }, bend { $quarters } quarter tones
released-to = let the bend down to { $fret }
released = then let it down
held-on = hold it: { $what }
optional = if you like
uncertain = not sure
uncertain-rhythm = the rhythm is not sure
all-of-it = all { $manner }
those-again = those { WORD($count) } { $times ->
    [2] again
   *[other] { WORD($times) } times
  }
all-but-last = all { $manner } but the last
dynamic-pp = very softly
dynamic-p = softly
dynamic-mp = rather softly
dynamic-mf = rather loud
dynamic-f = loud
dynamic-ff = very loud
dip = dip { $tones ->
    [0] { $quarters } quarter tones
    [1] a half tone
   *[other] { WORD($tones) } half tones
  } deep
free = in free time, as you speak it
stopped = stop { $strings }

# Grips
hold = hold { $name }
named = { $name }: { $shape }
goes-on = { $name } goes on
as-before = as before
from-grip = from { $name }
from-there = from there
all-open = all open
at = { ORDINAL($string) } at { $fret }
string-open = { ORDINAL($string) } open
finger-at = { ORDINAL($string) } at { $fret } with the { $finger } finger
shape-at = { ORDINAL($string) } at { $fret } ({ $finger })
string-done = { $string }, { $what }
barre = barre at { $fret } { $over }
shape-of = { $barre }, shape of { $shape }
over-all = over all six strings
over = over { $strings }
from-string = from the { ORDINAL($string) } string
whole-shape = the whole shape to { $to }: { $name }
held = { $head }{ $extents ->
    [1] , { $extent }
   *[other] {""}
  }: { $pattern }
held-on-place = { $head } on { $place }: { $pattern }
held-same = { $head }, { $same }{ $extents ->
    [1] , { $extent }
   *[other] {""}
  }
same = the same
same-from = the same from the { ORDINAL($string) }
stays = leave { $fingers } down
only-moves = only { $mover } moves
thumb = thumb { $string }
then = { $first }, then { $rest }
with-fingers = with { $fingers }
pinch = { $strings } together
strum = strum
down = down
up = up
dead-stroke = dead { $stroke }
dead-string = { $string } dead
dead-strings = { $strings } dead
every-beat = a { $stroke }-stroke on every beat
every-off-beat = { $stroke } on every &
one-stroke = one { $stroke }-stroke, { WORD($beats) } beats
and-then = and then { $what }
next-bar = next bar { $what }
without-others = all plain
last-time = the last time { $what }
each-bar = in each bar { $what }
in-bar = in bar { WORD($bar) } { $what } on { $place }

# One grip moved
power-chords-on = { $told ->
    [1] on the { ORDINAL($string) }
   *[other] power chords on the { ORDINAL($string) }
  }
wide-power-chords-on = { $told ->
    [1] on the { ORDINAL($string) }
   *[other] three-string power chords on the { ORDINAL($string) }
  }
one-finger-flat = { $told ->
    [1] flat over { $strings }
   *[other] power chords, one finger flat over { $strings }
  }
octaves-on = { $told ->
    [1] on { $strings }
   *[other] octaves on { $strings }
  }
thirds-on = { $told ->
    [1] on { $strings }
   *[other] thirds on { $strings }
  }
sixths-on = { $told ->
    [1] on { $strings }
   *[other] sixths on { $strings }
  }
places = { $what }: { $place }
last = last { $what }
before-each = before each { $what }
before-all-but-last = before each but the last { $what }
opens-done = open strings { $manner }
the-open = open { ORDINAL($string) }

# What is like something earlier
like-equal = the same as { $name }
like-moved = the same as { $name }, { WORD($by) } { $by ->
    [one] fret
   *[other] frets
  } { $up ->
    [1] higher
   *[other] lower
  }
like-strings = the same as { $name }, { WORD($by) } { $by ->
    [one] string
   *[other] strings
  } { $up ->
    [1] thicker
   *[other] thinner
  }
but = but on { $place } { $what }
but-in-bar = but in bar { WORD($bar) } on { $place } { $what }

# Setting up
turn = { ORDINAL($string) } string { $up ->
    [1] up
   *[other] down
  } { WORD($tones) } half { $tones ->
    [one] tone
   *[other] tones
  } to { $name }, { $how }{ $slowly ->
    [1] , slowly: it may break
   *[other] {""}
  }
compare-unison = until it sounds as the open { ORDINAL($other) } string
compare-octave_below = until its touched 12th fret sounds as the open { ORDINAL($other) } string
compare-octave_above = until it is an octave above the open { ORDINAL($other) } string
compare-pressed = until it sounds as the { ORDINAL($other) } string at the { ORDINAL($fret) } fret
compare-presses = until its { ORDINAL($fret) } fret sounds as the open { ORDINAL($other) } string
compare-tone = by a reference tone
capo = { $fret ->
    [0] no capo
   *[other] capo at the { ORDINAL($fret) } fret: frets count from there
  }
sounds = { $tones ->
    [0] it sounds as high as your guitar does now
    [one] it sounds one half tone { $up ->
        [1] higher
       *[other] lower
      } than your guitar does now
   *[other] it sounds { WORD($tones) } half tones { $up ->
        [1] higher
       *[other] lower
      } than your guitar does now
  }
off-pitch = the recording is { $cents } cents { $up ->
    [1] higher
   *[other] lower
  }: tune every string to the tones

# On the sheet
hard = what makes it hard is { $measure }, in bar { $bar } (Step { $step })
half-of-the-bars = half of the bars are at Step { $step } or below
what-helps = What helps: { $what }
