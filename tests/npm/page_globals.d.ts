// What a page says around its scripts (src/draw/page/page.html).
declare const page: { stamp: string; reloads: boolean; trouble: string | null };
