package engine

import (
	"sync"

	"shoal/internal/effect"
	"shoal/internal/project"
)

type version struct {
	id string
	of int
}

// infos is made once: a document asks for every stage that it holds, at every change.
var infos = sync.OnceValue(func() map[version]project.EffectInfo {
	m := map[version]project.EffectInfo{}
	for _, said := range effect.Infos() {
		for _, v := range []int{0, said.Version} {
			if k, ok := effect.Of(said.ID, v); ok {
				m[version{said.ID, v}] = infoOf(k, said.Newest)
			}
		}
	}
	return m
})

func infoOf(k *effect.Kind, newest int) project.EffectInfo {
	return project.EffectInfo{
		Version: k.Version,
		Newest:  newest,
		Name:    k.Name,
		Params:  k.Params,
		Sound:   k.Sound,
		Mix:     k.Mix,
		MixLaw:  k.MixLaw,
		Whole:   k.Whole,
		InNotes: k.InNotes(),
		Keyed:   k.Keyed,
	}
}

// EffectInfo gives the document's rules what they must know of effects; version 0 is the newest.
func EffectInfo(id string, of int) (project.EffectInfo, bool) {
	info, ok := infos()[version{id, of}]
	return info, ok
}
