package effect_test

import (
	"fmt"
	"testing"

	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

func TestEveryEffect(t *testing.T) {
	for i := range effect.Kinds() {
		k := &effect.Kinds()[i]
		t.Run(k.ID, func(t *testing.T) { effecttest.Check(t, k) })
	}
	for i := range effect.Older() {
		k := &effect.Older()[i]
		t.Run(fmt.Sprint(k.ID, " ", k.Version), func(t *testing.T) { effecttest.Check(t, k) })
	}
}

// BenchmarkReference is what all figures are held against: one second-order section in plain arithmetic. It must never change.
func BenchmarkReference(b *testing.B) {
	src := effecttest.Noise(128, 1, -10)
	x := make([]float64, 128)
	var z1, z2 float64
	for b.Loop() {
		for i, v := range src {
			y := 0.2*v + z1
			z1 = 0.4*v + 0.7*y + z2
			z2 = 0.2*v - 0.5*y
			x[i] = y
		}
	}
	b.ReportMetric(float64(b.Elapsed().Nanoseconds())/float64(b.N)/128, "ns/frame")
}

func BenchmarkEffects(b *testing.B) {
	for _, k := range effect.Kinds() {
		b.Run(k.ID, func(b *testing.B) {
			rig := effecttest.New(k.ID, 48000, nil)
			if k.ID == "equaliser" { // a bell that is flat costs nothing
				for i, p := range k.Params {
					if p.Group != "" && p.Label == "Gain" {
						rig.Values[i] = 3
					}
				}
			}
			srcL, srcR := effecttest.Noise(128, 1, -10), effecttest.Noise(128, 2, -10)
			l, r := make([]float64, 128), make([]float64, 128)
			b.ReportAllocs()
			for b.Loop() {
				copy(l, srcL)
				copy(r, srcR)
				rig.Span(l, r)
			}
			perFrame := float64(b.Elapsed().Nanoseconds()) / float64(b.N) / 128
			b.ReportMetric(perFrame, "ns/frame")
			b.ReportMetric(1e9/48000/perFrame, "x-realtime")
		})
	}
}
