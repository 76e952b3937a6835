package main

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"text/tabwriter"

	"github.com/spf13/cobra"
	"github.com/swaggest/jsonschema-go"

	"shoal/internal/effect"
	"shoal/internal/param"
	"shoal/internal/project"
	"shoal/internal/server"
)

func effectsCommand() *cobra.Command {
	var asJSON bool
	c := &cobra.Command{
		Use: "effects", Short: "List every effect and parameter", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			list := []effect.Info{}
			for _, k := range slices.Concat(effect.Kinds(), effect.Whole()) {
				list = append(list, k.Info)
			}
			if asJSON {
				e := json.NewEncoder(c.OutOrStdout())
				e.SetIndent("", "  ")
				return e.Encode(list)
			}
			w := tabwriter.NewWriter(c.OutOrStdout(), 0, 4, 2, ' ', 0)
			for _, k := range list {
				fmt.Fprintf(w, "%s (%s): %s\n", k.ID, k.Family, k.Says)
				for _, p := range k.Params {
					fmt.Fprintf(w, "  %s\t%s\tdefault %s\t%s\n", p.Name, spanOf(p), valueOf(p, p.Default), p.Says)
				}
			}
			return w.Flush()
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "as JSON")
	return c
}

// spanOf is what a parameter can be, in words: choices by their names.
func spanOf(p param.Param) string {
	switch p.Taper {
	case param.Choice:
		return strings.Join(p.Choices, ", ")
	case param.Switch:
		return "off or on"
	}
	return fmt.Sprintf("%g to %g %s", p.Min, p.Max, p.Unit)
}

func valueOf(p param.Param, v float64) string {
	if word, ok := p.Word(v); ok {
		return word
	}
	return fmt.Sprintf("%g", v)
}

func openapiCommand() *cobra.Command {
	return &cobra.Command{
		Use: "openapi", Short: "Print the description of the API (OpenAPI 3.1)", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			b, err := server.OpenAPI()
			if err != nil {
				return err
			}
			_, err = fmt.Fprintln(c.OutOrStdout(), string(b))
			return err
		},
	}
}

// namedValues says of parameters of stages and of points that choices may stand there by their names.
func namedValues(p jsonschema.InterceptPropParams) error {
	value := (&jsonschema.Schema{}).WithAnyOf(
		(&jsonschema.Schema{}).WithType(jsonschema.Number.Type()).ToSchemaOrBool(),
		(&jsonschema.Schema{}).WithType(jsonschema.String.Type()).ToSchemaOrBool(),
	)
	switch {
	case !p.Processed:
	case p.Name == "params":
		p.PropertySchema.WithAdditionalProperties(value.ToSchemaOrBool())
	case p.Name == "value" && p.ParentSchema.ReflectType == reflect.TypeFor[project.Point]():
		*p.PropertySchema = *value
	}
	return nil
}

func schemaCommand() *cobra.Command {
	return &cobra.Command{
		Use: "schema", Short: "Print the JSON Schema of a bundle's project.json", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			r := jsonschema.Reflector{}
			r.DefaultOptions = append(r.DefaultOptions, jsonschema.InterceptProp(namedValues))
			s, err := r.Reflect(project.Project{})
			if err != nil {
				return err
			}
			title, version := "Shoal project", fmt.Sprintf("Format version %d of project.json in a bundle.", project.Version)
			s.Title, s.Description = &title, &version
			b, err := json.MarshalIndent(s, "", "  ")
			if err != nil {
				return err
			}
			_, err = fmt.Fprintln(c.OutOrStdout(), string(b))
			return err
		},
	}
}
