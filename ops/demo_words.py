"""What the demo's buttons say, in its four languages. All of it is made up."""

from uptick.core.button.merge import Json

EN, DE, FR, AR = "en-GB", "de-DE", "fr-FR", "ar"


def _in(english: str, german: str, french: str, arabic: str) -> dict[str, str]:
    return {EN: english, DE: german, FR: french, AR: arabic}


BASELINE: Json = {
    "ready": _in("Take it home", "Mit nach Hause", "Je l’emporte", "خذه إلى البيت"),
    "working": _in("Packing…", "Wird gepackt…", "Emballage…", "جار التغليف…"),
    "added": _in("In your skep", "Im Bienenkorb", "Dans la ruche", "في سلتك"),
    "in_basket": _in(
        "{count} in your skep, add another",
        "{count} im Bienenkorb, noch eins",
        "{count, plural, one {# dans la ruche, un autre} other {# dans la ruche, encore un}}",
        "{count, plural, one {واحد في سلتك، أضف آخر} two {اثنان في سلتك، أضف آخر} few {# في سلتك، أضف آخر} "
        "other {# في سلتك، أضف آخر}}",
    ),
    "choose_first": _in("Pick one first", "Erst auswählen", "Choisissez d’abord", "اختر أولا"),
    "pre_order": _in("Reserve for spring", "Fürs Frühjahr vormerken", "Réserver pour avril", "احجز للربيع"),
    "sold_out": _in("Back in the spring", "Im Frühling wieder", "De retour en avril", "يعود في الربيع"),
}

LISTING: Json = {
    "in_basket": _in("{count} in skep", "{count} im Korb", "{count} pris", "{count} في السلة"),
    "choose_first": _in("See sizes", "Größen", "Les tailles", "المقاسات"),
    "pre_order": _in("Reserve", "Vormerken", "Réserver", "احجز"),
    "sold_out": _in("In spring", "Im Frühling", "En avril", "في الربيع"),
}

BAR: Json = {
    "ready": _in("Take it home, {price}", "Mitnehmen, {price}", "J’emporte, {price}", "خذه، {price}"),
    "choose_first": _in("Pick one first", "Erst auswählen", "Choisir d’abord", "اختر أولا"),
}

STRIP: Json = {
    "ready": _in("Add · {price}", "Dazu · {price}", "+ {price}", "+ {price}"),
    "in_basket": _in("{count} in skep", "{count} im Korb", "{count} pris", "{count} في السلة"),
    "choose_first": _in("Sizes", "Größen", "Tailles", "المقاسات"),
    "pre_order": _in("Reserve", "Vormerken", "Réserver", "احجز"),
    "sold_out": _in("In spring", "Im Frühling", "En avril", "في الربيع"),
}

PICTURES: Json = {
    "ready": _in("Take it", "Mitnehmen", "Prendre", "خذه"),
    "in_basket": _in("{count} in skep", "{count} im Korb", "{count} pris", "{count} في السلة"),
    "choose_first": _in("Pick one", "Auswählen", "Choisir", "اختر"),
    "pre_order": _in("Reserve", "Vormerken", "Réserver", "احجز"),
}

TILE: Json = {**PICTURES, "sold_out": LISTING["sold_out"]}
FLOATING: Json = {
    "ready": _in("A whole first season, {price}", "Eine ganze erste Saison, {price}", "Une première saison, {price}",
                 "موسم أول كامل، {price}"),
    "in_basket": _in("{count} in your skep", "{count} im Bienenkorb", "{count} dans la ruche", "{count} في سلتك"),
}  # fmt: skip
BEFORE_BEES = _in("Before they come", "Bevor sie kommen", "Avant leur arrivée", "قبل أن يصل النحل")
LOOKED_AT = _in("Looked at before", "Zuvor angesehen", "Déjà vu", "نظرت إليه من قبل")

JARS: Json = {"ready": _in("48 jars, {price}", "48 für {price}", "48 à {price}", "48 بـ {price}")}
SETS: Json = {"ready": _in("Take the set", "Das ganze Set", "Le lot complet", "خذ المجموعة")}
BEES: Json = {
    "pre_order": _in("Reserve for April", "Für April vormerken", "Réserver pour avril", "احجز لأبريل"),
    "sold_out": _in("Next swarm in May", "Nächster Schwarm im Mai", "Essaim en mai", "السرب القادم في مايو"),
}
TENS: Json = {"in_basket": _in("{count} in your skep", "{count} im Korb", "{count} dans la ruche", "{count} في سلتك")}
FRAMES: Json = {
    "choose_first": _in("Pick your frame standard", "Rähmchenmaß wählen", "Choisissez le format", "اختر مقاس الإطار")
}
CLOTHES: Json = {"choose_first": _in("Pick a size first", "Erst die Größe", "La taille d’abord", "اختر المقاس أولا")}
WINTER: Json = {"ready": {EN: "Take it, save {saving}"}}
