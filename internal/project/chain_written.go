package project

import (
	"encoding/json"
	"fmt"
)

// WrittenChain reads a chain that somebody wrote by hand, as from the list of effects: ids, the version of an effect (the
// newest), its mix and what it acts on may be left out, and values may be written as people do ("2k", "-6 dB", "bell").
func WrittenChain(b []byte, effects Effects) (*Chain, error) {
	var chain map[string]any
	if err := json.Unmarshal(b, &chain); err != nil {
		return nil, fmt.Errorf("read chain: %w", err)
	}
	if err := fillChain(chain, effects, 0); err != nil {
		return nil, fmt.Errorf("read chain: %w", err)
	}
	whole, err := json.Marshal(chain)
	if err == nil {
		whole, err = Numbered(whole, effects)
	}
	if err != nil {
		return nil, fmt.Errorf("read chain: %w", err)
	}
	return ReadChain(whole, effects)
}

func fillChain(chain map[string]any, effects Effects, depth int) error {
	nodes, _ := chain["nodes"].([]any)
	for i, n := range nodes {
		node, _ := n.(map[string]any)
		if stage, ok := node["stage"].(map[string]any); ok {
			if err := fillStage(stage, effects); err != nil {
				return fmt.Errorf("node %d: %w", i+1, err)
			}
		}
		if fork, ok := node["fork"].(map[string]any); ok && depth <= maxDepth {
			unless(fork, map[string]any{"id": NewID(), "mix": 100, "mixLaw": "blend", "paths": []any{}})
			if fork["kind"] == Bands {
				unless(fork, map[string]any{"slope": 24})
			}
			paths, _ := fork["paths"].([]any)
			for _, p := range paths {
				path, ok := p.(map[string]any)
				if !ok {
					continue // refused as an empty path
				}
				unless(path, map[string]any{"id": NewID(), "width": 100, "chain": map[string]any{"nodes": []any{}}})
				if inner, ok := path["chain"].(map[string]any); ok {
					if err := fillChain(inner, effects, depth+1); err != nil {
						return err
					}
				}
			}
		}
	}
	return nil
}

func fillStage(stage map[string]any, effects Effects) error {
	id, _ := stage["effect"].(string)
	version, _ := stage["version"].(float64)
	if version == 0 {
		delete(stage, "version")
	}
	info, ok := effects(id, int(version))
	if !ok {
		return nil // refused with its name or its version
	}
	unless(stage, map[string]any{
		"id": NewID(), "version": info.Version, "params": map[string]any{},
		"mix": info.Mix, "mixLaw": info.MixLaw, "actsOn": "both",
	})
	return nil
}

// unless sets what is not there.
func unless(m, usual map[string]any) {
	for k, v := range usual {
		if m[k] == nil || m[k] == "" {
			m[k] = v
		}
	}
}
