/**
 * Words of everyday English that stand one slip away from a word that is known here. They are meant as they are
 * written: "the tight ones" are not the right ones.
 */
export const ORDINARY: ReadonlySet<string> = new Set(
  `tight night might sight fight bright weight height flight wright lift loft lest lost list cast past best fist
  slow show shot slit plot flow glow clot hide wide side tide rise rude rice bride pride card yard ward herd hare hart
  sort sofa cloud load lord proud host most boast ascent accept absent full fall file film will hill kill feel fell find
  fine fold hold draw drug drab brag flag flat foam clam flame ruffle buff cuff rough vote code node none nose clay plan
  prey oven calf hall halt swan sway slap snap soap smart stars state star stare story best west test nest rust real sand
  band lane lend lamp crush trash clash brash crack share spare snake scare snack pick sick tick kid king heave weave
  lease leaf clean cleat fake lake male love mode dove mood bend sent seen scent bead boat bear meat heat seat neat belt
  bean beast cars base bare barn tone tons tops done dome flood flour blood door poor twine tide tidy press dress tree
  there these three thee than them then they this thus that what when where while white whose hands lands stand grand
  brand bring spring string ring thing think thin bell ball bull tell tall till toll bill pull push rush rich reach
  ready steady study sturdy party part port sport short shirt shift sheet sleet sweet street middle muddle fiddle riddle
  paddle puddle saddle simple sample ample apple single mingle tingle jingle triple double trouble bubble humble rumble
  second seconds beyond around ground round sound pound found mound wound bound rapid liquid solid vivid funny sunny
  crazy lazy hazy busy easy early hardly nearly clearly really dearly yearly weakly quickly sharply nicely closely
  gently loosely tightly brightly slightly lightly softly sadly badly madly gladly mainly plainly stable table cable
  fable able noble nibble stick slick trick brick thick quick click pink punk junk funk rock sock lock dock mock folk
  jazz latin rumba samba bossa march waltz shuffle groovy spicy juicy tasty nasty dusty rusty misty purple orange green
  big red dog old new now why how who his her our you get got cat car day way say may pay boy toy joy man men pen ten hen
  sun fun run gun bun son won one two six hot pot dot lot cut but nut hut put sit fit pit wit bad sad mad dad bed led fed
  fat mat rat bat pat hip lip tip zip top pop hop cop mop shy sky spy fly try dry cry buy guy eye ear arm leg toe egg ice
  age ago air aid aim all any are art ask ate bag bar bet bid bin bit box bus cap cup die dig due eat end far few fix for
  fur gas gap god had has hat him hit its jar job key kid law lay let lie log low map met mix mud net nor not off oil our
  out own pan pie pig pin ran raw rib rid rob rod row rub sad sat saw sea see set sew she sin sip ski sum tax tea the tie
  tin too try tub use van vet via war was web wet win yes yet zoo add jam lid mug nap oak owl pal ray sob tag tug wax
  happy angry heavy fuzzy dizzy dirty thirsty thirty forty fifty sixty`.split(/\s+/),
);
