// What MuPDF says of the annotations of a page. Run by tests: mutool run mutool-notes.js IN PAGE
/* global PDFDocument, scriptArgs, print */
var doc = new PDFDocument(scriptArgs[0]);
var annotations = doc.loadPage(Number(scriptArgs[1]) - 1).getAnnotations();
var said = [];
for (var i = 0; i < annotations.length; i++) {
  var one = annotations[i];
  said.push({ type: one.getType(), words: one.getContents(), author: one.getAuthor() });
}
print(JSON.stringify(said));
