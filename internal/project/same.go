package project

import (
	"maps"
	"reflect"
	"slices"
)

// same reports whether two rows say the same, field by field: of the very many rows of a long session a change leaves all but
// one as they were, and they are compared at every change. What few rows have is left to reflection.
func (c *Channel) same(o *Channel) bool {
	return c == o || c.ID == o.ID && c.Kind == o.Kind && c.Name == o.Name && c.Tint == o.Tint &&
		c.Stereo == o.Stereo && c.Hidden == o.Hidden && c.Letter == o.Letter && c.Records == o.Records &&
		c.WayIn == o.WayIn && c.Waterline == o.Waterline && c.PrintWhenAsked == o.PrintWhenAsked &&
		c.Fader == o.Fader && c.Pan == o.Pan && c.Mute == o.Mute && c.MutePre == o.MutePre && c.SoloSafe == o.SoloSafe &&
		c.Output == o.Output && c.Overlaps == o.Overlaps && sameOf(c.Input, o.Input) && sameOf(c.Hand, o.Hand) &&
		eachSame(c.Sends, o.Sends, sameOf) && eachSame(c.Clips, o.Clips, (*Clip).same) && c.Chain.same(&o.Chain) &&
		reflect.DeepEqual(c.Trials, o.Trials) && reflect.DeepEqual(c.PrintOf, o.PrintOf)
}

func (c *Chain) same(o *Chain) bool {
	return c.Bypass == o.Bypass && eachSame(c.Nodes, o.Nodes, func(a, b *Node) bool {
		return a.Stage.same(b.Stage) && reflect.DeepEqual(a.Fork, b.Fork)
	})
}

func (s *Stage) same(o *Stage) bool {
	if s == nil || o == nil {
		return s == o
	}
	return s.ID == o.ID && s.Name == o.Name && s.Effect == o.Effect && s.Version == o.Version && s.Bypass == o.Bypass &&
		s.Mix == o.Mix && s.MixLaw == o.MixLaw && s.ActsOn == o.ActsOn && sameOf(s.Key, o.Key) && s.Steered == o.Steered &&
		s.Sound == o.Sound && s.RingOut == o.RingOut && s.MixLock == o.MixLock &&
		(s.Params == nil) == (o.Params == nil) && maps.Equal(s.Params, o.Params)
}

func (x *Clip) same(o *Clip) bool {
	return x.ID == o.ID && x.Name == o.Name && x.Audio == o.Audio && x.Follows == o.Follows && x.Start == o.Start &&
		x.Offset == o.Offset && x.Frames == o.Frames && x.Gain == o.Gain && x.FadeIn == o.FadeIn && x.FadeOut == o.FadeOut &&
		x.Exact == o.Exact && x.InShape == o.InShape && x.OutShape == o.OutShape && x.InBend == o.InBend && x.OutBend == o.OutBend &&
		x.Mute == o.Mute && x.Tint == o.Tint && x.Treatment == o.Treatment && x.Rings == o.Rings && x.Enters == o.Enters &&
		x.Take == o.Take && x.Over == o.Over && sameOf(x.Extent, o.Extent) && sameOf(x.Origin, o.Origin) &&
		(x.Swell == nil) == (o.Swell == nil) && slices.Equal(x.Swell, o.Swell) && reflect.DeepEqual(x.Made, o.Made)
}

// sameOf reports whether both are nil, or what they point at is equal.
func sameOf[T comparable](a, b *T) bool {
	return a == b || a != nil && b != nil && *a == *b
}

// eachSame compares lists; an empty one is not none, for they are written differently.
func eachSame[T any](a, b []*T, same func(a, b *T) bool) bool {
	return (a == nil) == (b == nil) && slices.EqualFunc(a, b, func(x, y *T) bool {
		return x == y || x != nil && y != nil && same(x, y)
	})
}
