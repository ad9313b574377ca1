# Lo que se dice en español; lo que falta se dice en inglés.
# WORD($n): tres.

list = { $first } y { $last }

# Dedos
finger-1 = índice
finger-2 = medio
finger-3 = anular
finger-4 = meñique
finger-T = pulgar
the-finger = el { $finger }
with-finger = con el { $finger }
picking-p = pulgar
picking-i = índice
picking-m = medio
picking-a = anular
picking-c = meñique

# Tiempo
beat = el tiempo { $beat }
part-e = la e del { $beat }
part-and = la y del { $beat }
part-a = la a del { $beat }
part-t = el segundo tercio del { $beat }
part-l = el último tercio del { $beat }
part-of-beat = la parte { WORD($share) } de { WORD($of) } del tiempo { $beat }
sign-e = e
sign-and = y
sign-a = a
sign-t = tre
sign-l = si
sign-part = { $share }/{ $of }
count = cuenta { $counts }
count-each = cuenta { $counts }, en cada compás
count-next = en el compás siguiente cuenta { $counts }
at-place = { $what } en { $place }
after-rest = silencio, luego { $what } en { $place }
lasting = { $what }, { $beats ->
    [one] un tiempo
   *[other] { WORD($beats) } tiempos
  }
triplets = tres por tiempo, 1 tre-si
to-the-beat = { WORD($count) } por tiempo
times = { WORD($count) } veces
bars = { $bars ->
    [one] un compás
   *[other] { WORD($bars) } compases
  }
beats = { $beats ->
    [one] un tiempo
   *[other] { WORD($beats) } tiempos
  }

# Notas
open = al aire
dead = apagada
wait = espera
harmonics-at = armónicos en el { $frets }
run = el paso: { $what }
position = { $fret }.ª posición
on-string = { $string }.ª cuerda { $what }
short-string = { $string }.ª { $what }
the-string = la { $string }.ª cuerda
strings = las cuerdas { $strings }
on-strings = cuerdas { $strings }: { $what }
together = { $notes } a la vez
note-times = { $what } { WORD($times) } veces
cell-again = { $cell }, { $times ->
    [2] otra vez
   *[other] { WORD($times) } veces
  }
bent-to = { $what }, estira hasta el sonido del { $fret }
bent-again = { $what }, estira al { $fret }
prebent-to = { $what }, ya estirado al sonido del { $fret }
prebent-quarter = { $what }, ya estirado un cuarto de tono
prebent-quarters = { $what }, ya estirado { $quarters } cuartos de tono
bent-quarter = { $what }, estira un cuarto de tono
bent-quarters = { $what }, estira { $quarters } cuartos de tono
released-to = suelta lo estirado hasta { $fret }
released = después suelta
held-on = sin pulsar: { $what }
optional = si quieres
uncertain = no es seguro
uncertain-rhythm = el ritmo no es seguro
all-of-it = todo { $manner }
those-again = esas { WORD($count) } { WORD($times) } veces
all-but-last = todo { $manner } menos la última
dynamic-pp = muy suave
dynamic-p = suave
dynamic-mp = bastante suave
dynamic-mf = bastante fuerte
dynamic-f = fuerte
dynamic-ff = muy fuerte
dip = palanca { $tones ->
    [0] { $quarters } cuartos de tono
    [1] un semitono
   *[other] { WORD($tones) } semitonos
  } hacia abajo
free = en tiempo libre, como hablando
stopped = calla { $strings }

# Acordes y formas
hold = mantén { $name }
named = { $name }: { $shape }
goes-on = { $name } sigue
as-before = como antes
from-grip = desde { $name }
from-there = desde ahí
all-open = todo al aire
at = { $string }.ª en el { $fret }
string-open = { $string }.ª al aire
finger-at = { $string }.ª en el { $fret } con el { $finger }
shape-at = { $string }.ª en el { $fret } ({ $finger })
string-done = { $string }, { $what }
barre = cejilla en el { $fret } { $over }
shape-of = { $barre }, forma de { $shape }
over-all = sobre las seis cuerdas
over = sobre { $strings }
from-string = desde la { $string }.ª cuerda
whole-shape = toda la forma al { $to }: { $name }
held = { $head }{ $extents ->
    [1] , { $extent }
   *[other] {""}
  }: { $pattern }
held-on-place = { $head } en { $place }: { $pattern }
held-same = { $head }, { $same }{ $extents ->
    [1] , { $extent }
   *[other] {""}
  }
same = igual
same-from = igual desde la { $string }.ª
stays = deja { $fingers }
only-moves = solo { $mover } se mueve
thumb = pulgar { $string }
then = { $first }, luego { $rest }
with-fingers = con { $fingers }
pinch = { $strings } a la vez
strum = rasgueo
down = abajo
up = arriba
dead-stroke = { $stroke } apagado
dead-string = { $string } apagada
dead-strings = { $strings } apagadas
every-beat = { $stroke } en cada tiempo
every-off-beat = { $stroke } en cada y
one-stroke = un golpe { $stroke }, { WORD($beats) } tiempos
and-then = y luego { $what }
next-bar = compás siguiente { $what }
without-others = todo sin más notas
last-time = la última vez { $what }
each-bar = en cada compás { $what }
in-bar = en el compás { WORD($bar) } { $what } en { $place }

# Una forma que se mueve
power-chords-on = { $told ->
    [1] en la { $string }.ª
   *[other] acordes de quinta en la { $string }.ª
  }
wide-power-chords-on = { $told ->
    [1] en la { $string }.ª
   *[other] acordes de quinta de tres cuerdas en la { $string }.ª
  }
one-finger-flat = { $told ->
    [1] plano sobre { $strings }
   *[other] acordes de quinta, un dedo plano sobre { $strings }
  }
octaves-on = { $told ->
    [1] en { $strings }
   *[other] octavas en { $strings }
  }
thirds-on = { $told ->
    [1] en { $strings }
   *[other] terceras en { $strings }
  }
sixths-on = { $told ->
    [1] en { $strings }
   *[other] sextas en { $strings }
  }
places = { $what }: { $place }
last = último { $what }
before-each = antes de cada uno { $what }
before-all-but-last = antes de cada uno menos el último { $what }
opens-done = cuerdas al aire: { $manner }
the-open = la { $string }.ª al aire

# Lo que es como algo anterior
like-equal = igual que { $name }
like-moved = igual que { $name }, { $by ->
    [one] un traste
   *[other] { WORD($by) } trastes
  } hacia { $up ->
    [1] el puente
   *[other] la cejuela
  }
like-strings = igual que { $name }, { $by ->
    [one] una cuerda más
   *[other] { WORD($by) } cuerdas más
  } { $up ->
    [1] grave
   *[other] aguda
  }{ $by ->
    [one] {""}
   *[other] s
  }
but = pero en { $place } { $what }
but-in-bar = pero en el compás { WORD($bar) }, en { $place } { $what }

# Preparar la guitarra
turn = { $string }.ª cuerda: { $up ->
    [1] sube
   *[other] baja
  } { $tones ->
    [one] un semitono
   *[other] { WORD($tones) } semitonos
  } a { $name }, { $how }{ $slowly ->
    [1] , despacio: puede romperse
   *[other] {""}
  }
compare-unison = hasta que suene como la { $other }.ª cuerda al aire
compare-octave_below = hasta que su armónico del traste 12 suene como la { $other }.ª cuerda al aire
compare-octave_above = hasta que quede una octava por encima de la { $other }.ª cuerda al aire
compare-pressed = hasta que suene como la { $other }.ª cuerda en el traste { $fret }
compare-presses = hasta que su traste { $fret } suene como la { $other }.ª cuerda al aire
compare-tone = con un tono de referencia
capo = { $fret ->
    [0] sin cejilla
   *[other] cejilla en el traste { $fret }: los trastes se cuentan desde ella
  }
sounds = { $tones ->
    [0] suena a la altura de tu guitarra tal como está
   *[other] suena { $tones ->
        [one] un semitono
       *[other] { WORD($tones) } semitonos
      } más { $up ->
        [1] agudo
       *[other] grave
      } que tu guitarra tal como está
  }
off-pitch = la grabación está { $cents } cents más { $up ->
    [1] alta
   *[other] baja
  }: afina cada cuerda con los tonos

# En la hoja
hard = lo difícil es { $measure }, en el compás { $bar } (Step { $step })
half-of-the-bars = la mitad de los compases está en Step { $step } o menos
what-helps = Ayuda: { $what }
caution-stretch = Hay aperturas grandes para esta mano: busca otros dedos u otro lugar en vez de forzar.
caution-barre = Una cejilla larga: calienta, aprieta solo lo necesario y suelta la mano entre medias.
caution-picking = Púa rápida durante mucho tiempo: calienta, mantén la muñeca suelta y haz pausas cortas.
caution-tension = Hay cuerdas por encima de su altura habitual: pueden romperse o cargar el mástil; baja las demás o usa la cejilla.
pain = Para si sientes dolor, hormigueo o adormecimiento, y descansa; si dura, que lo vea un médico o un fisioterapeuta de la mano.
