/** Plain words of garden, glasshouse, shed, kitchen, weather and way: what the cards of an English class are drawn from. */
export const ENGLISH_WORDS = `
acorn alder almond aloe anemone anise apple apricot arbour arch arnica ash aspen aster avocado azalea badger balcony
balm bamboo banana bank barge bark barley barn barrel barrow basil basin basket bat bay beach bead beak beaker beam
bean bear bed bee beech beehive beet beetle bell belt bench berry birch bird bison blade blanket blossom blue board
boat bobbin bog boiler bolt bonfire book boot border borage bottle boulder bow bowl box bracken bract branch brass
bread breeze brick bridge bright bristle bronze brook broom brown brush bubble bucket buckle bud bug bulb bumble
bundle bunting burrow bush butter button buzzard cabbage cabin cactus calf camel camera canal candle cane canoe canvas
cape caper caraway carpet carrot cart cashew castle cat catkin cave cedar celery chain chair chalk chard cheese cherry
chervil chest chick chicory chimney chip chisel chive cider cinder citrus clamp clay cliff climb clip cloak clock
cloud clover coal coast coat cobble cocoa coconut coil collar comb comet compass compost cone copper coral cord cork
corn corner cottage cotton cover cow cowslip crab crane crank crate crayon cream creek cress cricket crisp crocus crop
crow crown crumb crystal cuckoo cup curl currant curtain cushion custard cutting cycle cypress dahlia daisy dam damp
damson dapple dawn deck deep deer delta den dew dill dingle dish ditch dock dome donkey door dove drain drawer drift
drip drizzle drop drum duck dune dusk dust eagle earth easel east echo edge eel egg eider elbow elder elm ember endive
engine evening ewe fable falcon fan farm feather felt fence fennel fern ferry fiddle field fig finch fir fire firefly
fish flag flame flask flax fleece flint float flock flood floor flour flower flute foal fog foil fold foot ford forest
fork foundry fox frame freckle freesia fresh frog frond frost fruit fuchsia funnel furrow gable gale gallop garden
garland garlic garnet gate gather gazebo gecko gentian ginger ginkgo glade glass glide globe glove glow glue goat gold
goose gorse gourd grain granite grape grass gravel green grey grid grove guava gull gust gutter halo ham hammer
hammock hand handle hare harp harvest hat hawk hay hazel heap hearth heath heather hedge hemp hen herb heron hill
hinge hive hollow holly honey hook hoop hop horizon horn hornet horse hose house hut ice icicle indigo ink inlet
insect iris iron island ivory ivy jackdaw jam jar jasmine jay jelly jetty jigsaw jug juice jumper juniper kale kelp
kennel kestrel kettle key kiln kite kitten kiwi knob knot lace ladder ladle lake lamb lamp lane lantern larch lark
latch lath lattice laurel lawn leaf leather ledge leek lemon lens lentil lettuce lever lichen lid light lilac lily
lime linden linen linnet lintel lion lizard llama loaf loam lobster lock log loom loop lotus lovage lupin lynx magnet
magpie mallow mango mantis map maple marble margin market marrow marsh marten mask mast mat match meadow measure
medlar mellow melon merlin mesh metal mice midge mild milk mill millet mimosa mineral mint mirror mist mitten moat
mole monkey moon moor morning mortar mosaic moss moth mould mound mouse mountain mud mug mulberry mulch mule mullein
mushroom music mussel mustard myrtle nail napkin nectar needle nest net nettle newt night nightjar noon north notch
notebook nut nutmeg nymph oak oar oat ocean ochre olive onion onyx opal orange orchard orchid oregano osprey otter
oval oven owl ox oyster paddle paddock page pail paint palm pan pane panel papaya paper paprika parasol parcel parsley
parsnip pasture patch path patio peach peacock peahen peak pear pearl peas peat pebble peg pelican pen pencil peony
pepper perch petal petunia pheasant piano pier pigeon pike pillar pillow pin pine pinecone pink pipe pitcher plank
plant planter plaster plate plot plough plum plume pocket pod pole pollen polish pond pony pool poplar poppy porch
porridge post postcard pot potato potter powder prawn press primrose prism privet puddle puffin pulley pump pumpkin
puppy purple quail quarry quartz quiet quill quilt quince rabbit radish raft rail rain rainbow raisin rake ram ramp
raven reed reef relay resin rhubarb ribbon rice ridge rim ring ripple river roach road robin rock rocket rod roof rook
root rope rose rosebud rosemary rowan rubber ruby rudder rug rumble run rung rush russet rust rye sack saddle saffron
sage sail salad salmon salt sand sandal sapling sapphire satin saucer savory saw scale scarf scent school scissors
scoop scout screen scythe sea seal season seat seaweed sedge seed seedling shade shadow shale shears shed sheep sheet
shelf shell shelter shine shingle ship shoe shore shovel shower shrew shrimp shrub shutter sickle sieve signal silk
silver siskin skate sketch skin skip skirt sky skylark slate sled sleet slide slope sloe slug smoke smooth snail snow
snowdrop soap sock soft soil song sorrel soup south spade spark sparrow spear spider spike spinach spindle spiral
spire splash spoke sponge spoon spray spring sprinkle sprout spruce spur squash squid squirrel stable stack stage
stair stake stalk stamp star starfish starling stave steam steel stem step stick still stile stilt stitch stoat stone
stool stork storm stove strap straw stream string strip stump sugar summer summit sun sundial sunny sunrise sunset
swallow swamp swan sweet swift swing switch sycamore syrup table tadpole tail tall tamarind tangle tank tansy tap tape
tarn tarragon tassel tea teal teapot teasel tent terrace thatch thaw thicket thimble thistle thorn thread thrift
thrush thumb thunder thyme tide tiger tile timber tin tinder toad toast toffee tomato tone tongs tool top topaz torch
tortoise towel tower track trail train tray treacle tree trellis trickle trough trout trowel trug trumpet trunk tub
tube tuber tulip tumble tuna tundra tunnel turf turnip turret turtle twig twine twirl umbrella valley vane vanilla
vase vault velvet vent verbena vest vetch viaduct vine vinegar viola violet violin wagon wagtail walk wall walnut
walrus wand warbler warm wash wasp water wave wax weasel weather web weed weir well west whale wheat wheel whisk
whisker whistle white wicker wild willow wind window wing winter wire wisteria wolf wood woodland woodlark wool
workshop worm woven wren wreath yacht yard yarn yarrow yeast yellow yew yogurt zebra zenith zest zigzag zinc zinnia
`
  .trim()
  .split(/\s+/);
