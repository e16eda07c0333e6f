// Changes annotations of the first page as MuPDF's scripts do. Run by tests: mutool run mutool.js IN OUT WHAT
/* global PDFDocument, scriptArgs */
var doc = new PDFDocument(scriptArgs[0]);
var what = scriptArgs[2];
var annotations = doc.loadPage(0).getAnnotations();

function movedPoint(point) {
  return [point[0] + 10, point[1] + 5];
}

function movedStroke(stroke) {
  return stroke.map(movedPoint);
}

function movedQuad(quad) {
  return quad.map(function (value, i) {
    return value + (i % 2 === 0 ? 10 : 5);
  });
}

for (var i = 0; i < annotations.length; i++) {
  var one = annotations[i];
  var type = one.getType();
  if (what === 'color') one.setColor([1, 0, 0]);
  if (what === 'opacity') one.setOpacity(0.5);
  if (what === 'contents') one.setContents('A remark');
  if (what === 'hidden') one.setFlags(2);
  if (what === 'moved' && type === 'Ink') one.setInkList(one.getInkList().map(movedStroke));
  if (what === 'moved' && type === 'Highlight')
    one.setQuadPoints(one.getQuadPoints().map(movedQuad));
  one.update();
}
doc.save(scriptArgs[1], 'incremental');
