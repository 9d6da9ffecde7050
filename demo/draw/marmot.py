"""A cut-out: the marmot who conducts the last train, on nothing."""

from __future__ import annotations

FUR, DARK, PALE, NOSE = "#a8774a", "#6f4a2c", "#e8cda2", "#2c201b"
COAT, TRIM, BRASS, RED, CREAM = "#24405a", "#16293c", "#d9a441", "#bb3e2c", "#f6ecd9"


def draw() -> str:
    tufts = "".join(
        f'<path d="M{x} {y}q{dx} {dy} {2 * dx} 0" stroke="{DARK}" stroke-width="5" fill="none" stroke-linecap="round"/>'
        for x, y, dx, dy in ((352, 318, 7, 9), (386, 338, 7, 9), (590, 336, 7, 9), (624, 316, 7, 9))
    )
    buttons = "".join(
        f'<circle cx="{x}" cy="{y}" r="12" fill="{BRASS}"/><circle cx="{x - 3}" cy="{y - 3}" r="4" fill="#f3d58c"/>'
        for y in (560, 628, 696)
        for x in (452, 548)
    )
    whiskers = "".join(
        f'<path d="M{500 + s * 56} {y}q{s * 60} {d} {s * 112} {d * 1.6:g}" stroke="{CREAM}" stroke-width="4" fill="none" stroke-linecap="round"/>'
        for s in (-1, 1)
        for y, d in ((352, -10), (364, 4), (376, 18))
    )
    return f"""<svg xmlns="http://www.w3.org/2000/svg" width="6.4in" height="8in" viewBox="0 0 960 1200">
<title>The conductor</title>
<g stroke-linejoin="round">
<path d="M690 980q150 30 176-96 8-60-30-66-34 0-40 56-10 60-110 44z" fill="{DARK}"/>
<path d="M796 846q34-34 62 4-6 66-40 92-30-20-22-96z" fill="{FUR}"/>
<path d="M352 1040q-22 78-84 92-22 34 22 40h150q22-6 18-40l10-92zM648 1040q22 78 84 92 22 34-22 40H560q-22-6-18-40l-10-92z" fill="{DARK}"/>
<path d="M268 1132q-22 34 22 40h150q22-6 18-40-90 26-190 0zM732 1132q22 34-22 40H560q-22-6-18-40 90 26 190 0z" fill="{NOSE}"/>
<path d="M300 560q-70 240 6 470 190 70 388 0 76-230 6-470-40-84-200-84t-200 84z" fill="{COAT}"/>
<path d="M500 500q-46 270-4 552 108 0 198-22 76-230 6-470-36-70-200-60z" fill="{TRIM}" opacity=".45"/>
<path d="M306 1030q190 70 388 0l4-40q-200 62-396 0z" fill="{TRIM}"/>
<path d="M304 992q196 62 392 0" stroke="{BRASS}" stroke-width="7" fill="none"/>
<path d="M500 512v530" stroke="{TRIM}" stroke-width="7"/>
<path d="M400 486 500 640 600 486q-100-34-200 0z" fill="{CREAM}"/>
<path d="M462 520 500 508l38 12-20 28 26 96-44 46-44-46 26-96z" fill="{RED}"/>
<path d="M400 486 500 640 452 690 352 528q16-32 48-42zM600 486 500 640l48 50 100-162q-16-32-48-42z" fill="{COAT}" stroke="{TRIM}" stroke-width="6"/>
{buttons}
<path d="M560 812h96q4 52-48 60-52-8-48-60z" fill="{TRIM}"/><path d="M560 812h96v14h-96z" fill="{BRASS}"/>
<path d="M500 760q40 70 92 60" stroke="{BRASS}" stroke-width="6" fill="none"/>
<circle cx="608" cy="846" r="0" fill="{BRASS}"/>
<path d="M318 560q-96 60-118 214-4 58 44 66 46 2 60-54l50-134z" fill="{COAT}" stroke="{TRIM}" stroke-width="6"/>
<path d="M196 776q-4 58 48 66 46 2 60-54-60 4-108-12z" fill="{BRASS}"/>
<path d="M192 796q-26 60 22 86 60 20 86-30 8-36-10-48-60 8-98-8z" fill="{FUR}"/>
<circle cx="236" cy="906" r="48" fill="{BRASS}"/><circle cx="236" cy="906" r="38" fill="{CREAM}"/>
<path d="M236 880v26l18 12" stroke="{NOSE}" stroke-width="6" fill="none" stroke-linecap="round"/><circle cx="236" cy="852" r="10" fill="none" stroke="{BRASS}" stroke-width="7"/>
<path d="M682 560q110-16 146-142 6-46-34-58-42-6-60 40-24 60-92 66z" fill="{COAT}" stroke="{TRIM}" stroke-width="6"/>
<path d="M828 420q8-52-34-62-44-6-62 40 44 30 96 22z" fill="{BRASS}"/>
<path d="M786 408 806 130" stroke="#7a5a3c" stroke-width="20" stroke-linecap="round"/>
<path d="M744 376q-14-56 34-74 66-10 72 46 0 44-30 56-50 4-76-28z" fill="{FUR}"/>
<path d="M760 330q22-16 44-6M756 352q24-14 50-4M762 374q22-10 44-2" stroke="{DARK}" stroke-width="6" fill="none" stroke-linecap="round"/>
<circle cx="808" cy="118" r="98" fill="{CREAM}" stroke="{NOSE}" stroke-width="8"/><circle cx="808" cy="118" r="66" fill="{RED}"/>
<path d="M762 118h92" stroke="{CREAM}" stroke-width="24"/>
<path d="M318 210q-46-8-50 38 4 46 56 42zM682 210q46-8 50 38-4 46-56 42z" fill="{DARK}"/>
<path d="M316 228q-20 0-22 20 4 20 26 18zM684 228q20 0 22 20-4 20-26 18z" fill="{PALE}"/>
<path d="M500 120q-190 4-206 190-4 190 206 200 210-10 206-200-16-186-206-190z" fill="{FUR}"/>
<path d="M500 196q-150 0-190 96-20 70 10 130 40 60 110 78-60-60-44-134 20-70 114-74 94 4 114 74 16 74-44 134 70-18 110-78 30-60 10-130-40-96-190-96z" fill="{DARK}" opacity=".34"/>
<path d="M500 320q-92 4-102 90 6 92 102 96 96-4 102-96-10-86-102-90z" fill="{PALE}"/>
{tufts}{whiskers}
<path d="M452 338q48-26 96 0-4 44-48 52-44-8-48-52z" fill="{NOSE}"/><path d="M474 342q18-10 36-4" stroke="#8d776c" stroke-width="6" fill="none" stroke-linecap="round"/>
<path d="M500 388v34M500 422q-30 30-62 8M500 422q30 30 62 8" stroke="{NOSE}" stroke-width="7" fill="none" stroke-linecap="round"/>
<path d="M478 432h44v42q-22 12-44 0z" fill="{CREAM}" stroke="{NOSE}" stroke-width="5"/><path d="M500 434v42" stroke="{NOSE}" stroke-width="4"/>
<ellipse cx="406" cy="284" rx="25" ry="30" fill="{NOSE}"/><ellipse cx="594" cy="284" rx="25" ry="30" fill="{NOSE}"/>
<circle cx="415" cy="273" r="9" fill="#fff"/><circle cx="603" cy="273" r="9" fill="#fff"/>
<path d="M372 240q32-22 64-4M564 236q32-18 64 4" stroke="{DARK}" stroke-width="10" fill="none" stroke-linecap="round"/>
<path d="M296 214q-2-40 14-56 190-50 380 0 16 16 14 56-204-54-408 0z" fill="{TRIM}"/>
<path d="M300 176q-34-96 30-126 170-56 340 0 64 30 30 126-200-52-400 0z" fill="{COAT}"/>
<path d="M302 150q198-50 396 0l4 36q-202-52-404 0z" fill="{RED}"/>
<path d="M300 196q200-54 400 0 20 20 8 36-204-66-416 0-12-16 8-36z" fill="{NOSE}"/>
<path d="M336 206q160-38 328 0" stroke="#5d5160" stroke-width="6" fill="none" stroke-linecap="round"/>
<path d="M500 56 526 96 500 136 474 96z" fill="{BRASS}"/><path d="m482 106 18-26 18 26z" fill="{COAT}"/>
</g>
</svg>
"""
