// Writes marks of all kinds onto the first page, as MuPDF's scripts do. Run by tests: mutool run mutool-marks.js IN OUT
/* global PDFDocument, scriptArgs */
var doc = new PDFDocument(scriptArgs[0]);
var page = doc.loadPage(0);
var quad = [100, 180, 200, 180, 100, 192, 200, 192];
var kinds = {
  Ink: function (one) {
    one.setInkList([
      [
        [100, 600],
        [150, 580],
        [200, 600],
      ],
    ]);
  },
  Line: function (one) {
    one.setLine([100, 500], [200, 480]);
  },
  Square: function (one) {
    one.setRect([300, 600, 360, 640]);
  },
  Circle: function (one) {
    one.setRect([300, 500, 360, 540]);
  },
  Polygon: function (one) {
    one.setVertices([
      [300, 400],
      [360, 400],
      [330, 360],
    ]);
  },
  PolyLine: function (one) {
    one.setVertices([
      [100, 400],
      [150, 380],
      [200, 400],
    ]);
  },
  Highlight: function (one) {
    one.setQuadPoints([quad]);
  },
  Underline: function (one) {
    one.setQuadPoints([quad]);
  },
  StrikeOut: function (one) {
    one.setQuadPoints([quad]);
  },
  Squiggly: function (one) {
    one.setQuadPoints([quad]);
  },
  Caret: function (one) {
    one.setRect([210, 180, 218, 192]);
  },
  Stamp: function (one) {
    one.setRect([300, 200, 400, 240]);
  },
};
for (var kind in kinds) {
  var one = page.createAnnotation(kind);
  kinds[kind](one);
  if (kind !== 'Stamp') one.setColor([1, 0, 0]);
  one.setContents('A ' + kind);
  one.setAuthor('Nerissa');
}
page.update();
doc.save(scriptArgs[1], '');
