/** Plain words of garden, glasshouse, shed, kitchen, weather and way: what the cards of a German class are drawn from. */
export const GERMAN_WORDS = `
aal abend acker adler ahorn akazie akelei alge allee alpe amboss ameise amsel ananas angel anis anker anorak apfel
april aquarium arnika aroma asche aster ast auge august aurikel auster axt azur bach backe bad bagger bahn balken ball
balkon bambus banane band bank bart bast bau bauch bauer baum becher beere beet beifuss beil bein berg besen bett
beutel biber biene bild binse birke birne bison blase blatt blau blech blei blitz block blume bluse boden bogen bohne
bohrer bohle boje bolzen boot borke borste braun brei brett brezel brief brille brise bronze brot brunnen buch buche
bucht bund bunt burg busch bussard butter buxbaum chor clown dach dachs dahlie damm dampf datum daumen decke deckel
degen deich delfin diele dill dinkel distel docht dohle dolde dorf dorn dose dotter drachen draht drossel duft dunst
ebbe eber echo ecke efeu egge ei eibe eiche eichel eidechse eimer eis eisen elch elle elster ente enzian erbse erde
erdbeere erle ernte esche esel espe essig estragon eule euter fabel fackel faden falke falte farbe farn fasan faser
feder fee feige feile feld fell fels fenchel fenster ferkel ferne ferse fest feuer fichte fink finger firn fisch
flachs fladen flagge flasche flaum flechte fleck flieder fliege fliese floh flocke flosse fluss flut fohlen folie
forelle forst frost frosch frucht fuchs fuchsie fuge funke fuss futter gabel galerie gans garbe garn garten gasse gast
gatter gaul gecko geige gelb gerste giebel gimpel ginkgo ginster gips giraffe gitter glanz glas glocke glut gold golf
granit gras grat grau grille grotte grube gruppe gurke gurt gut haar habicht hacke hafen hafer hagel hahn hai hain
haken halle halm hals halter hammer hamster hand hanf hang harfe harke harz hase hasel haube haufen haus haut hebel
hecht hecke hefe heft heide heim heizung hell helm hemd henkel henne herbst herd herz heu hibiscus himbeere himmel
hirsch hirse hirte hobel hof holunder holz honig hopfen horn hornisse hose huf hufeisen huhn hummel hund hut igel
iltis imker ingwer insel iris jacke jade januar jasmin joghurt juli juni juwel kabel kabine kachel kaffee kahn kaiser
kakao kaktus kalb kalender kalk kamel kamera kamille kamin kamm kanal kanne kante kapelle kapsel kapuze karaffe
karotte karpfen karre karte karton kastanie kasten kater katze kauz kefir kegel kehle keil keim keks kelle kelter
kerbe kern kerze kessel kette keule kiefer kies kiesel kind kino kirsche kissen kiste kitt kiwi klammer klappe klee
kleid kleie klinge klinke klippe knebel knie knolle knopf knospe knoten koch koffer kohl kohle kokos kolben komet
kompass kompost konfekt kopf koralle korb kork korn kraft kragen kran kranich kranz kraut krebs kreide kreis kresse
krokus krone krug krume kuchen kuckuck kugel kuh kupfer kurbel kurve lachs lack lade lager lampe land lanze larve
lasche laterne latte laub lauch lauf laune lavendel leder lehm lehne leim leine leiter lerche leuchte libelle licht
lid lied liege liguster lilie limette limone linde linie linse lippe loch locke lorbeer los luchs luft luke lupe
lupine lurch made mai mais majoran malve mandel mangold mantel mappe marder markt marmor marone masche maske mast
matte mauer maul maulwurf maus meer mehl meise meissel melisse melone mergel messer messing metall miete milch milbe
minze mispel mist mittag mitte mohn mole mond moor moos morgen most motte mulde mund murmel muschel museum muskat
mutter nabel nacht nadel nagel narzisse nase natter nebel nektar nelke nerz nessel nest netz nische norden nudel nuss
oase obst ocker ofen ohr oktober olive onkel opal orange orchidee oregano orgel orkan osten otter oval ozean paar
paddel paket palme pappel paprika park pastete pate pedal pegel pelikan pelz perle petunie pfad pfahl pfanne pfau
pfeffer pfeife pfeil pferd pfirsich pflanze pflaume pflug pforte pfosten pfote pilz pinie pinsel pirol pistazie planke
plane platane platte platz polster pony porree posaune post prisma pudel puder puls pult pumpe punkt puppe purpur
quader qualle quark quarz quelle quendel quitte rabe rad radler rahm rahmen rampe rand ranke rasen raspel ratte rauch
raupe raute rebe rechen regal regen reh reif reifen reihe reiher reis reise reisig reseda rettich riegel riemen rind
rinde ring rinne rippe ritter robbe roggen rohr rolle rosa rose rosine rosmarin ross rost rot rubin rucksack ruder ruf
ruhe rumpf rute saat sack saft safran sage sahne saite salat salbei salz samen samt sand sandale sattel saum schaf
schal schale schar schatten schaufel schaum scheibe schelle schere scheune schiene schiff schild schilf schirm schlamm
schlange schlauch schlehe schleife schloss schmied schnabel schnalle schnecke schnee schnitt schnur schopf schote
schrank schraube schritt schuh schule schulter schuppen schwalbe schwamm schwan schwelle see seerose segel sehne seide
seife seil sellerie senf senke senkel sense sessel sichel sieb siegel signal silber sims sirup socke sockel sofa sohle
sommer sonne sonntag spalier spalt spange spargel spaten specht speck speer speiche spelz sperling spiegel spiel
spinat spindel spinne spirale spitze sporn sprosse spross spule spur stachel stadel stadt staffel stahl stall stamm
stange star staub staude steg steig stein stelze stempel stengel steppe stern stiefel stiel stier stift stille stimme
stirn stock stoff stollen stolz stopfen stoppel storch strahl strand strasse strauch strauss streifen strick stroh
strom strudel strumpf stube stufe stuhl stummel stunde sturm stute suppe tafel tag tal taler tanne tante tanz tasche
tasse taste tau taube teer tee teich teig teller tempel tennis tenne teppich terrasse thymian tiger tinte tisch toast
tomate ton tonne topf topas tor torf torte trab traktor tram traube traum treppe trichter trog trommel tropfen truhe
tuch tulpe turm turnip uferweg ufer uhr uhu ulme umhang urlaub urne vanille vase veilchen ventil veranda vers viertel
viola vogel vorhang waage wabe wachs wachtel wade waffel wagen wahl wal wald walnuss walze wand wange wanne warm
wasser watte weber wecker weg wegerich weide weiher wein weiss weizen welle welpe werft werkbank wermut wespe weste
westen wetter wicke widder wiese wiesel wild wimpel wind winde winkel winter wippe wirbel wirsing witz woche wolf
wolke wolle wunsch wurm wurzel zahl zahn zander zange zapfen zaun zebra zeder zehe zeichen zeiger zeile zeisig zeit
zelle zelt zement zettel ziege ziegel zimt zink zinke zinn zinnie zipfel zirkel zitrone zopf zucchini zucker zug zunge
zweig zwerg zwiebel zwirn zwilling zylinder
`
  .trim()
  .split(/\s+/);
