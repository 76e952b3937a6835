package plot

import (
	"encoding/xml"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestPlacesAlongAnAxis(t *testing.T) {
	straight := Axis{From: -60, To: 0}
	assert.InDelta(t, 0.25, straight.part(-45), 1e-12)
	octaves := Axis{From: 20, To: 20000, Log: true}
	assert.InDelta(t, 0, octaves.part(20), 1e-12)
	assert.InDelta(t, 2.0/3, octaves.part(2000), 1e-12, "each ten times as much is as far")
}

func TestAPlotIsAnSVGWithItsLinesInItsFrame(t *testing.T) {
	p := Plot{
		X: Axis{Label: "Hz", From: 1, To: 100, Ticks: []float64{1, 10, 100}, Log: true},
		Y: Axis{Label: "dB", From: -10, Ticks: []float64{-10, 0}},
		Lines: []Line{
			{Name: "one", X: []float64{1, 10, 100}, Y: []float64{-10, -5, 30}},
			{Name: "two", X: []float64{1, 100}, Y: []float64{0, 0}, Dashed: true},
		},
	}
	svg := p.SVG()
	d := xml.NewDecoder(strings.NewReader(svg))
	for {
		if _, err := d.Token(); err == io.EOF {
			break
		} else {
			require.NoError(t, err)
		}
	}
	assert.Contains(t, svg, "M54.0 286.0L332.0 150.0L610.0 14.0", "what goes beyond an axis stays at its edge")
	assert.Equal(t, 2, strings.Count(svg, "stroke-dasharray"), "the line and its key")
	assert.Contains(t, svg, ">two</text>")
}
