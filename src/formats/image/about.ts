/** What a file says about its picture, as XMP (ISO 16684-1): title, author, date in Dublin Core and XMP's own words. */
import type { AboutPicture } from '../../core/catalogue/file-kinds';

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** The brief stands in a namespace of our own, as JSON. */
export function xmpOf({ title, author, date, brief }: AboutPicture): string {
  const plain = (tag: string, value: string) =>
    `<${tag}><rdf:Alt><rdf:li xml:lang="x-default">${escaped(value)}</rdf:li></rdf:Alt></${tag}>`;
  return (
    '<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>' +
    '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">' +
    '<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" ' +
    'xmlns:xmp="http://ns.adobe.com/xap/1.0/" xmlns:sphaera="urn:sphaera:picture">' +
    plain('dc:title', title) +
    (author ? `<dc:creator><rdf:Seq><rdf:li>${escaped(author)}</rdf:li></rdf:Seq></dc:creator>` : '') +
    `<xmp:CreateDate>${escaped(date)}</xmp:CreateDate><xmp:CreatorTool>Sphaera</xmp:CreatorTool>` +
    (brief === null ? '' : `<sphaera:brief>${escaped(brief)}</sphaera:brief>`) +
    '</rdf:Description></rdf:RDF></x:xmpmeta><?xpacket end="w"?>'
  );
}
