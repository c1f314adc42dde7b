/** Short words that are told apart when they are read off a screen and typed: a code is three of these 128. */
export const CODE_WORDS = (
  'apple almond anchor apron arrow autumn bamboo banjo barley basil basket beach bell berry birch bottle ' +
  'bread bridge brush butter button cabin candle canvas carrot castle cedar cellar cherry chestnut cinnamon clay ' +
  'cliff clover coffee copper coral cotton crystal dolphin donkey dragon drum eagle elbow ember engine falcon ' +
  'feather fennel fern fiddle flute forest fountain fox garden garlic ginger glacier goose grape gravel hammer ' +
  'harbour hazel hedge honey island ivory jacket jasmine juniper kettle kitten ladder lagoon lantern lemon lentil ' +
  'lily linen lobster magnet maple marble meadow melon mint mirror muffin nectar needle nutmeg oasis olive ' +
  'onion orchard otter oyster paddle panda paper parsley pebble pepper pillow planet plum pocket pumpkin quartz ' +
  'rabbit radish ribbon river rocket saddle saffron sailor salmon silver spoon sunset teapot tulip velvet walnut'
).split(' ');
