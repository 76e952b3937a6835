package effect

import "slices"

// older lists the sounds that effects had before they were mended: a document that was made with one keeps it.
// A newer version has all the parameters of an older one, with ranges that hold its values.
var older = []Kind{
	vibrato1,
	vibrato2,
	reverb1,
	reverb2,
	reverb3,
	equaliser1,
	equaliser2,
	repeat1,
	delay1,
	spinDown1,
	deesser1,
	chorus1,
	flanger1,
	doubler1,
	detune1,
	convolver1,
	compressor1,
	limiter1,
	wah1,
	amplifier1,
	amplifier2,
	saturation1,
}

// was is an effect as it sounded in an older version, with the processors that it had then.
func was(k Kind, version int, processor func(rate float64) Processor) Kind {
	k.Version, k.New = version, processor
	return k
}

// began is an effect whose parameter began with another value.
func began(k Kind, name string, value float64) Kind {
	k.Params = slices.Clone(k.Params)
	k.Params[k.Index(name)].Default = value
	return k
}
