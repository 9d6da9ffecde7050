"""Safety advice for heat pressing, shown wherever pressing is planned or done."""

CAUTIONS = (
    "Makers' instructions, safety data sheets and local rules come first; where they differ from what stands here, follow them.",
    "Platen and blank stay hot enough to burn for minutes. Gloves let heat through in time: handle the blank briefly, set it "
    "down on something that bears heat, and let it cool before you touch it bare.",
    "Inks, coatings and adhesives give off fumes when heated. Air the room, keep your face out of the fumes, and heat only "
    "blanks that are made for it.",
    "Never leave a hot press unattended, and switch it off when you stop. Keep paper and cloth clear of the heater.",
    "Keep children and pets away from press, cutter and cooling blanks.",
    "Trim with the blade away from your hand and put it down closed.",
    "Check cable, plug and platen before you switch on; use a socket that bears the press's current, without an adapter.",
)
